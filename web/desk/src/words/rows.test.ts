import { expect, test } from 'vitest'
import { rowsOf, wordsOf } from './rows'

test('what is typed becomes words, without empty ones, and comes back as it was', () => {
  const list = { words: [{ written: 'BFL', said: 'bee eff ell', heardAs: ['b f l', 'be if l'] }] }
  expect(wordsOf(rowsOf(list))).toEqual(list)
  expect(wordsOf([{ key: 'a', written: ' Brack  water ', said: '', heardAs: ' black water ,, back water' }]).words).toEqual([
    { written: 'Brack water', said: '', heardAs: ['black water', 'back water'] },
  ])
  expect(wordsOf([{ key: 'a', written: ' ', said: 'x', heardAs: 'y' }]).words).toEqual([])
})
