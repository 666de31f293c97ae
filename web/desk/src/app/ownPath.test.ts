import { expect, test } from 'vitest'
import { ownPath } from './ownPath'

const here = 'https://wexel.example'

test.each(['/watch/abc', '/lessons/1/tidy?at=3#x', '/'])('%s is ours', (path) => {
  expect(ownPath(path, here)).toBe(here + path)
})

test.each([
  null,
  '',
  'watch/abc',
  '//pier.example/',
  '/\\pier.example/',
  '/\t/pier.example/',
  '/\n/pier.example/',
  '/\t\\pier.example/',
  '\t//pier.example/',
  'https://pier.example/',
  'javascript:alert(1)',
  '/sign-in?to=/',
])('%j is not', (path) => {
  expect(ownPath(path, here)).toBeUndefined()
})

test('what a page of ours is called cannot lead elsewhere', () => {
  for (const path of ['/%09/pier.example', '/%2F/pier.example', '/.//pier.example'])
    expect(new URL(ownPath(decodeURIComponent(path), here) ?? here).origin).toBe(here)
})
