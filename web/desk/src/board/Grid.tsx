import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { memo, useCallback, useLayoutEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '../app/api'
import { Mark, type MarkKind } from '../ui/Mark'
import { day } from '../ui/words'
import { type BoardCell, between, keyOf, moved, stateOf, toggled } from './selection'

type Row = Schemas['BoardRow']
type Outlet = Schemas['BoardOutlet']

interface Props {
  rows: Row[]
  outlets: Outlet[]
  selected: ReadonlySet<string>
  select: (selected: ReadonlySet<string>) => void
}

const rowPx = 56

/** The cells: by mouse and by keyboard a cell, a row by its lesson, a column by its outlet, and ranges are selected. */
export function Grid({ rows, outlets, selected, select }: Props) {
  const navigate = useNavigate()
  const body = useRef<HTMLDivElement>(null)
  const [top, setTop] = useState(0)
  const [at, setAt] = useState<BoardCell>()
  const anchor = useRef<BoardCell>(undefined)
  useLayoutEffect(() => setTop((body.current?.getBoundingClientRect().top ?? 0) + window.scrollY), [])
  const virtual = useWindowVirtualizer({ count: rows.length, estimateSize: () => rowPx, overscan: 8, scrollMargin: top })
  const shown = { lessons: rows.map((r) => r.lessonId), outlets: outlets.map((o) => o.id) }
  const columns = { gridTemplateColumns: `minmax(200px, 1fr) repeat(${outlets.length}, minmax(104px, 168px))` }
  const first = rows[0] && outlets[0] ? { lessonId: rows[0].lessonId, outletId: outlets[0].id } : undefined
  const focus = at && shown.lessons.includes(at.lessonId) ? at : first

  const latest = { rows, shown, selected, select, focus }
  const now = useRef(latest)
  now.current = latest
  const press = useCallback((cell: BoardCell, extend: boolean) => {
    const { shown, selected, select } = now.current
    setAt(cell)
    if (extend && anchor.current) return select(new Set([...selected, ...between(shown, anchor.current, cell)]))
    anchor.current = cell
    select(toggled(selected, [keyOf(cell)]))
  }, [])
  const row = useCallback((lessonId: string) => {
    const { shown, selected, select } = now.current
    select(
      toggled(
        selected,
        shown.outlets.map((outletId) => keyOf({ lessonId, outletId })),
      ),
    )
  }, [])
  const column = (outletId: string) =>
    select(
      toggled(
        selected,
        shown.lessons.map((lessonId) => keyOf({ lessonId, outletId })),
      ),
    )
  const go = (cell: BoardCell) => {
    setAt(cell)
    virtual.scrollToIndex(shown.lessons.indexOf(cell.lessonId), { align: 'auto' })
    // What was not drawn yet is there in the next frame.
    requestAnimationFrame(() => body.current?.querySelector<HTMLElement>(`[data-cell="${keyOf(cell)}"]`)?.focus())
  }
  const keyed = (event: React.KeyboardEvent) => {
    if (!focus || !(event.target as HTMLElement).dataset.cell) return
    const arrow = event.key.startsWith('Arrow') || event.key.startsWith('Page')
    if (arrow && event.shiftKey) {
      const next = moved(shown, focus, event.key)
      anchor.current ??= focus
      select(new Set([...selected, ...between(shown, anchor.current, next)]))
      go(next)
    } else if (arrow) {
      anchor.current = undefined
      go(moved(shown, focus, event.key))
    } else if (event.key === ' ' && event.shiftKey) row(focus.lessonId)
    else if (event.key === ' ' && event.ctrlKey) column(focus.outletId)
    else if (event.key === ' ') press(focus, false)
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey))
      select(new Set(shown.lessons.flatMap((lessonId) => shown.outlets.map((outletId) => keyOf({ lessonId, outletId })))))
    else if (event.key === 'Escape') select(new Set())
    else if (event.key === 'Enter') navigate(`/lessons/${focus.lessonId}/deliver`)
    else return
    event.preventDefault()
  }
  return (
    // biome-ignore lint/a11y/useSemanticElements: rows that are not on the screen are not drawn, which no table can do
    <div role="grid" aria-label="Lessons and where they stand" aria-multiselectable aria-rowcount={rows.length + 1} onKeyDown={keyed} tabIndex={-1}>
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: its cells are */}
      <div role="row" aria-rowindex={1} className="sticky top-0 z-10 grid gap-x-2 border-b-2 border-ink bg-paper py-2" style={columns}>
        {/* biome-ignore lint/a11y/useSemanticElements: as above */}
        {/* biome-ignore lint/a11y/useFocusableInteractive: nothing is done by it */}
        <div role="columnheader" className="font-bold">
          Lesson<span className="block font-normal text-quiet">in teaching order</span>
        </div>
        {outlets.map((o) => (
          // biome-ignore lint/a11y/useSemanticElements: as above
          // biome-ignore lint/a11y/useFocusableInteractive: its box is
          <div key={o.id} role="columnheader" className="min-w-0">
            <label className="flex cursor-pointer items-start gap-2">
              <input
                type="checkbox"
                className="mt-1 accent-copper"
                aria-label={`Select all at ${o.name}`}
                checked={rows.length > 0 && shown.lessons.every((lessonId) => selected.has(keyOf({ lessonId, outletId: o.id })))}
                onChange={() => column(o.id)}
              />
              <span className="min-w-0">
                <b className="block truncate">{o.name}</b>
                <span className="block text-quiet">{o.kindName}</span>
              </span>
            </label>
          </div>
        ))}
      </div>
      <div ref={body} className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => (
          <BoardLine
            key={rows[item.index].lessonId}
            row={rows[item.index]}
            index={item.index}
            y={item.start - top}
            outlets={outlets}
            columns={columns.gridTemplateColumns}
            selected={shown.outlets.map((outletId) => selected.has(keyOf({ lessonId: rows[item.index].lessonId, outletId }))).join()}
            focus={focus?.lessonId === rows[item.index].lessonId ? focus.outletId : undefined}
            press={press}
            all={row}
          />
        ))}
      </div>
    </div>
  )
}

interface LineProps {
  row: Row
  index: number
  y: number
  outlets: Outlet[]
  columns: string
  /** Which cells are selected, as words: what stays the same is not drawn again. */
  selected: string
  focus: string | undefined
  press: (cell: BoardCell, extend: boolean) => void
  all: (lessonId: string) => void
}

const BoardLine = memo(function BoardLine({ row, index, y, outlets, columns, selected, focus, press, all }: LineProps) {
  const on = selected.split(',').map((word) => word === 'true')
  const title = row.shortTitle || row.title || 'Needs a title'
  return (
    // biome-ignore lint/a11y/useSemanticElements: rows that are not on the screen are not drawn, which no table can do
    // biome-ignore lint/a11y/useFocusableInteractive: its cells are
    <div
      role="row"
      aria-rowindex={index + 2}
      className="absolute inset-x-0 grid items-stretch gap-x-2 border-b border-hairline"
      style={{ gridTemplateColumns: columns, height: rowPx, transform: `translateY(${y}px)` }}
    >
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: its box is */}
      <div role="rowheader" className="flex min-w-0 items-start gap-2 py-2">
        <input
          type="checkbox"
          className="mt-1 accent-copper"
          aria-label={`Select all of ${title}`}
          checked={on.every(Boolean)}
          onChange={() => all(row.lessonId)}
        />
        <span className="min-w-0">
          <Link to={`/lessons/${row.lessonId}/deliver`} title={row.title} className="block truncate hover:underline">
            {row.position}&ensp;{title}
          </Link>
          <span className="block truncate text-small text-quiet">{row.course}</span>
        </span>
      </div>
      {row.cells.map((cell, i) => {
        const here = { lessonId: row.lessonId, outletId: outlets[i].id }
        return (
          // biome-ignore lint/a11y/useSemanticElements: as above
          // biome-ignore lint/a11y/useKeyWithClickEvents: the grid takes the keys
          <div
            key={outlets[i].id}
            role="gridcell"
            data-cell={keyOf(here)}
            aria-selected={on[i]}
            tabIndex={focus === outlets[i].id ? 0 : -1}
            className={`min-w-0 cursor-pointer select-none px-2 py-1.5 ${on[i] ? chosen : 'hover:bg-hairline/40'}`}
            onClick={(e) => press(here, e.shiftKey)}
          >
            <InCell cell={cell} />
          </div>
        )
      })}
    </div>
  )
})

const chosen = 'bg-copper/10 outline-2 outline-copper -outline-offset-2'
const marks: Record<ReturnType<typeof stateOf>, MarkKind> = { nothing: 'nothing', behind: 'behind', live: 'live', working: 'working', failed: 'failed' }
const phases: Record<Schemas['ReleasePhase'], string> = {
  planned: 'Begins',
  rendering: 'Rendering',
  checking: 'Checking',
  packing: 'Packing',
  sending: 'Sending',
  processingThere: 'Made ready there',
  live: 'Live',
  behind: 'Behind',
  failed: 'Failed',
  takenDown: 'Taken down',
}

function InCell({ cell }: { cell: Schemas['CellView'] | null }) {
  const state = stateOf(cell)
  return (
    <>
      <Mark kind={marks[state]}>{cell ? phases[cell.phase] : 'Not there'}</Mark>
      <span className="block truncate pl-5 text-small text-quiet" title={cell?.problem ?? (cell ? `since ${day(cell.since)}` : undefined)}>
        {cell?.problem ?? (cell?.progress != null ? `${Math.round(cell.progress * 100)} %` : under(cell))}
      </span>
    </>
  )
}

function under(cell: Schemas['CellView'] | null): string {
  if (!cell) return ''
  return cell.visibility === 'withLink' ? 'by address' : day(cell.since)
}
