import { expect, test } from 'vitest'
import { numberOf } from './number'

test.each([
  ['1,5', 1.5],
  ['1.5', 1.5],
  ['0,25', 0.25],
  ['12 000', 12_000],
  ['5,000', 5000],
  ['1,234,567.5', 1_234_567.5],
  ['−3', -3],
  [' 7 ', 7],
])('%s is %d', (typed, number) => expect(numberOf(typed)).toBe(number))

test.each(['', 'nothing', '1,5,5', '1.2.3'])('“%s” is no number', (typed) => expect(numberOf(typed)).toBeNaN())
