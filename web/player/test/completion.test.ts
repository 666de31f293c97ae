import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { judge, type Range } from '../src/completion'
import { sectionAt, sectionSeen } from '../src/lesson'
import { clock, placeIn } from '../src/time'

const vectors = JSON.parse(readFileSync(new URL('../../../tests/vectors/completion.json', import.meta.url), 'utf8')) as {
  name: string
  lengthMs: number
  ranges: Range[]
  seenMs: number
  complete: boolean
}[]

test.each(vectors)('judges as the core does: $name', ({ lengthMs, ranges, seenMs, complete }) => {
  const found = judge(ranges, lengthMs)
  expect(found.seenMs).toBe(seenMs)
  expect(found.complete).toBe(complete)
})

test.each([
  ['#t=78', 78_000],
  ['#t=1:18', 78_000],
  ['#t=1:02:30', 3_750_000],
  ['#t=78.5', 78_500],
  ['#t=npt:10,20', 10_000],
  ['#x=1&t=5', 5_000],
  ['#t=abc', undefined],
  ['', undefined],
])('finds the place in %s', (hash, ms) => expect(placeIn(hash)).toBe(ms))

test('prints times', () => {
  expect(clock(78_900)).toBe('1:18')
  expect(clock(3_750_000)).toBe('1:02:30')
})

const lesson = {
  length: 30_000,
  sections: [
    { id: 'a', at: 0, title: 'A', nested: false },
    { id: 'b', at: 10_000, title: 'B', nested: true },
  ],
}

test('knows the section at a time, and when it was seen', () => {
  expect(sectionAt(lesson.sections, 9_999)).toBe(0)
  expect(sectionAt(lesson.sections, 10_000)).toBe(1)
  expect(sectionSeen(lesson as never, 0, [[0, 9_000]])).toBe(true)
  expect(sectionSeen(lesson as never, 1, [[0, 27_000]])).toBe(false)
})
