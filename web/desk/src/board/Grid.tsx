import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useCallback, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '../app/api'
import { type MarkKind, MarkShape } from '../ui/Mark'
import { date, day } from '../ui/words'
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
const headPx = 64
const lessonPx = 208
const cellPx = 108
/** Rows that are drawn above and below those in sight. */
const overscan = 4

/** The cells: by mouse and by keyboard a cell, a row by its lesson, a column by its outlet, and ranges are selected. */
export function Grid({ rows, outlets, selected, select }: Props) {
  const navigate = useNavigate()
  const box = useRef<HTMLDivElement>(null)
  const [at, setAt] = useState<BoardCell>()
  const anchor = useRef<BoardCell>(undefined)
  const virtual = useVirtualizer({
    count: rows.length,
    estimateSize: () => rowPx,
    overscan,
    useFlushSync: false,
    getScrollElement: () => box.current,
    scrollPaddingStart: headPx,
  })
  // What is scrolled out of sight becomes what comes into it, so that no row is made anew.
  const pool = Math.ceil((virtual.scrollRect?.height ?? window.innerHeight) / rowPx) + 1 + 2 * overscan
  const shown = { lessons: rows.map((r) => r.lessonId), outlets: outlets.map((o) => o.id) }
  const cellWidth = `clamp(${cellPx}px, (100% - ${lessonPx}px) / ${outlets.length}, 168px)`
  const whole = { minWidth: lessonPx + outlets.length * cellPx }
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
    requestAnimationFrame(() => box.current?.querySelector<HTMLElement>(`[data-cell="${keyOf(cell)}"]`)?.focus())
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
    <div
      ref={box}
      role="grid"
      aria-label="Lessons and where they stand"
      aria-multiselectable
      aria-rowcount={rows.length + 1}
      onKeyDown={keyed}
      tabIndex={-1}
      className="max-h-[calc(100dvh-10rem)] overflow-auto"
      style={{ scrollPadding: `${headPx}px 0 0 ${lessonPx}px` }}
    >
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: its cells are */}
      <div role="row" aria-rowindex={1} className="sticky top-0 z-20 flex border-b-2 border-ink bg-paper" style={{ ...whole, height: headPx }}>
        {/* biome-ignore lint/a11y/useSemanticElements: as above */}
        {/* biome-ignore lint/a11y/useFocusableInteractive: nothing is done by it */}
        <div role="columnheader" className={`${lessonColumn} font-bold`}>
          Lesson<span className="block font-normal text-quiet">in teaching order</span>
        </div>
        {outlets.map((o) => (
          // biome-ignore lint/a11y/useSemanticElements: as above
          // biome-ignore lint/a11y/useFocusableInteractive: its box is
          <div key={o.id} role="columnheader" className="flex-none px-2 py-1" style={{ width: cellWidth }} title={o.name}>
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
                <span className="block truncate text-quiet">{o.kindName}</span>
              </span>
            </label>
          </div>
        ))}
      </div>
      <div className="relative" style={{ ...whole, height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => (
          <BoardLine
            key={item.index % pool}
            row={rows[item.index]}
            index={item.index}
            y={item.start}
            outlets={outlets}
            cellWidth={cellWidth}
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
  cellWidth: string
  /** Which cells are selected, as words: what stays the same is not drawn again. */
  selected: string
  focus: string | undefined
  press: (cell: BoardCell, extend: boolean) => void
  all: (lessonId: string) => void
}

const BoardLine = memo(function BoardLine({ row, index, y, outlets, cellWidth, selected, focus, press, all }: LineProps) {
  const on = selected.split(',').map((word) => word === 'true')
  const title = row.shortTitle || row.title || 'Needs a title'
  return (
    // biome-ignore lint/a11y/useSemanticElements: rows that are not on the screen are not drawn, which no table can do
    // biome-ignore lint/a11y/useFocusableInteractive: its cells are
    <div
      role="row"
      aria-rowindex={index + 2}
      className="absolute inset-x-0 flex border-b border-hairline contain-strict"
      style={{ height: rowPx, transform: `translateY(${y}px)` }}
    >
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: its box is */}
      <div role="rowheader" className={`${lessonColumn} flex items-start gap-2`}>
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
            style={{ width: cellWidth }}
            className={`flex-none cursor-pointer select-none truncate px-2 py-1 ${on[i] ? chosen : 'hover:bg-hairline/40'}`}
            onClick={(e) => press(here, e.shiftKey)}
          >
            <InCell cell={cell} />
          </div>
        )
      })}
    </div>
  )
})

/** It stays where it is while the outlets are scrolled sideways. */
const lessonColumn = 'sticky left-0 z-10 min-w-0 flex-[1_0_200px] bg-paper py-1'
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

/** One block of two lines: a board of many rows is laid out again with each step of scrolling. */
function InCell({ cell }: { cell: Schemas['CellView'] | null }) {
  const state = stateOf(cell)
  return (
    <>
      <MarkShape kind={marks[state]} className="mr-2 align-[-1px]" />
      {cell ? (cell.takesDown && state === 'working' ? 'Taking down' : phases[cell.phase]) : 'Not there'}
      <br />
      <span className="ml-5 text-small text-quiet" title={cell?.problem ?? (cell ? `since ${day(cell.since)}` : undefined)}>
        {cell?.problem ?? (cell?.progress != null ? `${Math.round(cell.progress * 100)} %` : state === 'working' ? '' : under(cell))}
      </span>
    </>
  )
}

/** Who may see it, where that is worth knowing on the board. */
const seenBy: Partial<Record<Schemas['Visibility'], string>> = {
  onlyMe: 'only its owner',
  named: 'named people',
  withLink: 'by address',
  everybody: 'everybody',
}

function under(cell: Schemas['CellView'] | null): string {
  if (!cell) return ''
  return (cell.visibility && seenBy[cell.visibility]) || date(cell.since)
}
