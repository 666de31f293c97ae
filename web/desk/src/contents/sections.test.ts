import { expect, test } from 'vitest'
import { numbersOf, stretchOf } from './sections'

const sections = [
  { id: 'a', at: 0, title: 'A', nested: false },
  { id: 'b', at: 10, title: 'B', nested: false },
  { id: 'c', at: 20, title: 'C', nested: true },
  { id: 'd', at: 30, title: 'D', nested: true },
  { id: 'e', at: 40, title: 'E', nested: false },
]

test('nested sections are numbered under the one before them', () => expect(numbersOf(sections)).toEqual(['1', '2', '2.1', '2.2', '3']))

test.each([
  ['a', 0, 10],
  ['b', 10, 40],
  ['c', 20, 30],
  ['d', 30, 40],
  ['e', 40, 100],
])('section %s goes from %d to %d', (id, start, end) => expect(stretchOf(sections, id, 100)).toEqual({ start, end }))

test('what is not there has no stretch', () => expect(stretchOf(sections, 'x', 100)).toBeUndefined())
