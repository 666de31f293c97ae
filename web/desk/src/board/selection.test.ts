import { expect, test } from 'vitest'
import type { Schemas } from '../app/api'
import { between, cellOf, filtered, inState, keyOf, moved, stateOf, toggled } from './selection'

const shown = { lessons: ['a', 'b', 'c'], outlets: ['x', 'y', 'z'] }
const at = (lessonId: string, outletId: string) => ({ lessonId, outletId })
const cell = (phase: Schemas['ReleasePhase']): Schemas['CellView'] => ({
  phase,
  since: '2026-11-29T10:00:00Z',
  visibility: null,
  progress: null,
  problem: null,
  takesDown: false,
})
// What stands nowhere is null, which the description of the API does not say of what is in a list.
const cells = (...all: (Schemas['CellView'] | null)[]) => all as Schemas['CellView'][]
const rows: Schemas['BoardRow'][] = [
  { lessonId: 'a', course: 'Deck', position: 1, title: 'Mooring at high water', shortTitle: null, cells: cells(cell('live'), null) },
  { lessonId: 'b', course: 'Deck', position: 2, title: 'Lines', shortTitle: 'Ropes', cells: cells(cell('behind'), cell('sending')) },
  { lessonId: 'c', course: 'Ticket desk', position: 1, title: 'The till at night', shortTitle: null, cells: cells(cell('takenDown'), cell('failed')) },
]
const outlets: Schemas['BoardOutlet'][] = ['x', 'y'].map((id) => ({ id, name: id, kindName: 'channel', asksWho: true }))

test('a range is a rectangle, whichever corner it begins at', () => {
  const keys = ['a x', 'a y', 'b x', 'b y']
  expect(between(shown, at('a', 'x'), at('b', 'y'))).toEqual(keys)
  expect(between(shown, at('b', 'y'), at('a', 'x'))).toEqual(keys)
  expect(between(shown, at('a', 'y'), at('b', 'x'))).toEqual(keys)
  expect(between(shown, at('c', 'z'), at('c', 'z'))).toEqual(['c z'])
  expect(between(shown, at('gone', 'x'), at('b', 'y'))).toEqual([])
})

test('selecting what is all selected takes it away again', () => {
  const once = toggled(new Set(['a x']), ['a x', 'a y'])
  expect([...once]).toEqual(['a x', 'a y'])
  expect([...toggled(once, ['a x', 'a y'])]).toEqual([])
})

test('keys lead from cell to cell and stop at the edges', () => {
  expect(moved(shown, at('a', 'x'), 'ArrowDown')).toEqual(at('b', 'x'))
  expect(moved(shown, at('a', 'x'), 'ArrowUp')).toEqual(at('a', 'x'))
  expect(moved(shown, at('a', 'z'), 'ArrowRight')).toEqual(at('a', 'z'))
  expect(moved(shown, at('b', 'y'), 'PageDown')).toEqual(at('c', 'y'))
  expect(moved(shown, at('filtered away', 'y'), 'ArrowDown')).toEqual(at('b', 'y'))
})

test('a cell and its key are the same', () => {
  expect(cellOf(keyOf(at('a', 'x')))).toEqual(at('a', 'x'))
})

test('lessons are found by words and by how they stand', () => {
  expect(rows.map((r) => r.cells.map(stateOf))).toEqual([
    ['live', 'nothing'],
    ['behind', 'working'],
    ['nothing', 'failed'],
  ])
  expect(filtered(rows, 'deck lin', 'all').map((r) => r.lessonId)).toEqual(['b'])
  expect(filtered(rows, '', 'nothing').map((r) => r.lessonId)).toEqual(['a', 'c'])
  expect(filtered(rows, 'ropes', 'all').map((r) => r.lessonId)).toEqual(['b'])
  expect(filtered(rows, 'NIGHT', 'failed').map((r) => r.lessonId)).toEqual(['c'])
  expect(inState(rows, outlets, 'behind')).toEqual(['b x'])
  expect(inState(rows, outlets, 'all')).toHaveLength(6)
})
