import { expect, test } from 'vitest'
import { cutWithin, restored, withCut } from './cuts'

const pairs = (cuts: { start: number; end: number }[]) => cuts.map((c) => [c.start, c.end])
const cuts = [
  { start: 0, end: 1_000 },
  { start: 5_000, end: 8_000 },
]

test('cuts that overlap or touch become one', () => {
  expect(pairs(withCut(cuts, { start: 1_000, end: 2_000 }))).toEqual([
    [0, 2_000],
    [5_000, 8_000],
  ])
  expect(pairs(withCut(cuts, { start: 500, end: 6_000 }))).toEqual([[0, 8_000]])
  expect(pairs(withCut([], { start: 1, end: 2 }))).toEqual([[1, 2]])
})

test('what is restored is taken out of the cuts, from either end or from the middle', () => {
  expect(pairs(restored(cuts, { start: 6_000, end: 7_000 }))).toEqual([
    [0, 1_000],
    [5_000, 6_000],
    [7_000, 8_000],
  ])
  expect(pairs(restored(cuts, { start: 500, end: 5_500 }))).toEqual([
    [0, 500],
    [5_500, 8_000],
  ])
  expect(pairs(restored(cuts, { start: 2_000, end: 3_000 }))).toEqual(pairs(cuts))
  expect(pairs(restored(cuts, { start: 0, end: 9_000 }))).toEqual([])
})

test('says how much of a stretch is cut', () => {
  expect(cutWithin(cuts, { start: 500, end: 6_000 })).toBe(1_500)
})
