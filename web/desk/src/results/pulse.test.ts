import { expect, test } from 'vitest'
import { leavingOf, placesOf, pulseIn } from './pulse'

const step = (at: number, seen: number, again = 0, left = 0) => ({ at: at * 1000, seen, again, left })
const pulse = { step: 1000, learners: 9, steps: [step(0, 9), step(1, 8, 3), step(2, 8, 1, 2), step(30, 6, 2, 1), step(31, 5, 2, 1)] }

test('a stretch has the most of each figure, and all who left in it', () => {
  expect(pulseIn(pulse, 0, 10_000)).toMatchObject({ seen: 9, again: 3, left: 2 })
  expect(pulseIn(pulse, 10_000, 20_000)).toEqual({ steps: [], seen: 0, again: 0, left: 0 })
})

test('places are named once, the most frequent first, and not where only one was', () => {
  expect(placesOf(pulse.steps, (s) => s.again)).toEqual([
    { at: 1000, count: 3 },
    { at: 30_000, count: 2 },
  ])
  expect(placesOf(pulse.steps, (s) => s.left, 3, 3)).toEqual([])
})

test('those who leave within some seconds are gathered', () => {
  expect(leavingOf(pulse, 40_000)).toEqual([
    { at: 2000, count: 2 },
    { at: 30_000, count: 2 },
  ])
})
