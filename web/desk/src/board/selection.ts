import type { Schemas } from '../app/api'

export type BoardCell = Schemas['BoardCell']
type Row = Schemas['BoardRow']
type Cell = Schemas['CellView']
type Outlet = Schemas['BoardOutlet']

/** A cell as one word, for sets. */
export const keyOf = (cell: BoardCell) => `${cell.lessonId} ${cell.outletId}`
export function cellOf(key: string): BoardCell {
  const [lessonId, outletId] = key.split(' ')
  return { lessonId, outletId }
}

/** The cells that are shown: lessons down, outlets across. */
export interface Shown {
  lessons: string[]
  outlets: string[]
}

/** All cells between two, in the order in which they are shown; what is not shown is left out. */
export function between(shown: Shown, from: BoardCell, to: BoardCell): string[] {
  const span = (list: string[], a: string, b: string) => {
    const [i, j] = [list.indexOf(a), list.indexOf(b)].sort((x, y) => x - y)
    return i < 0 ? [] : list.slice(i, j + 1)
  }
  const outlets = span(shown.outlets, from.outletId, to.outletId)
  return span(shown.lessons, from.lessonId, to.lessonId).flatMap((lessonId) => outlets.map((outletId) => keyOf({ lessonId, outletId })))
}

/** All of them selected, or none where all of them were. */
export function toggled(selected: ReadonlySet<string>, keys: string[]): Set<string> {
  const next = new Set(selected)
  const all = keys.every((k) => next.has(k))
  for (const key of keys) {
    if (all) next.delete(key)
    else next.add(key)
  }
  return next
}

/** The cell that a key leads to; the same where there is none further on. */
export function moved(shown: Shown, from: BoardCell, key: string): BoardCell {
  const at = (list: string[], id: string, by: number) => list[Math.max(0, Math.min(list.length - 1, Math.max(0, list.indexOf(id)) + by))]
  const [down, across] = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], PageUp: [-10, 0], PageDown: [10, 0] }[key] ?? [0, 0]
  return { lessonId: at(shown.lessons, from.lessonId, down), outletId: at(shown.outlets, from.outletId, across) }
}

export type State = 'all' | 'behind' | 'live' | 'working' | 'failed' | 'nothing'

/** What is seen of a cell. */
export function stateOf(cell: Cell | null): Exclude<State, 'all'> {
  switch (cell?.phase) {
    case undefined:
    case 'takenDown':
      return 'nothing'
    case 'live':
    case 'behind':
    case 'failed':
      return cell.phase
    default:
      return 'working'
  }
}

/** The lessons whose title or course has all of the words, and that stand somewhere as is asked. */
export function filtered(rows: Row[], words: string, state: State): Row[] {
  const asked = words.toLocaleLowerCase().split(/\s+/).filter(Boolean)
  return rows.filter((row) => {
    const text = `${row.title} ${row.shortTitle ?? ''} ${row.course}`.toLocaleLowerCase()
    return asked.every((word) => text.includes(word)) && (state === 'all' || row.cells.some((cell) => stateOf(cell) === state))
  })
}

/** The cells of the lessons that are shown which stand as is asked. */
export const inState = (rows: Row[], outlets: Outlet[], state: State): string[] =>
  rows.flatMap((row) =>
    row.cells.flatMap((cell, i) => (state === 'all' || stateOf(cell) === state ? [keyOf({ lessonId: row.lessonId, outletId: outlets[i].id })] : [])),
  )
