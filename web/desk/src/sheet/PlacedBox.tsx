import { GripVertical } from 'lucide-react'
import type { KeyboardEvent, PointerEvent, ReactNode } from 'react'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { clock } from '../ui/words'
import { momentAt } from './moments'

interface Props {
  /** What it is called: "question". */
  name: string
  id: string
  at: number
  /** What is said of it in its first line. */
  terms: readonly string[]
  struck: boolean
  open: boolean
  select: (id: string | undefined) => void
  /** Without it, it stays where it is. */
  move?: (to: number) => void
  copy?: () => void
  remove: () => void
  /** What keeps it from learners. */
  lacks: readonly string[]
  /** What else can be done with it, behind "Change". */
  more?: ReactNode
  /** What is known of it, at the end of the line. */
  known?: ReactNode
  children: ReactNode
  /** Below all of it. */
  below?: ReactNode
}

const gripLook = 'cursor-grab touch-none self-center text-quiet hover:text-copper pointer-coarse:grid pointer-coarse:size-11 pointer-coarse:place-items-center'

/** Something placed, where it stands in the sheet: read there, written there; moved by drag and by key. */
export function PlacedBox({ name, id, at, terms, struck, open, select, move, copy, remove, lacks, more, known, children, below }: Props) {
  const { reel, playback } = useWork()
  const time = clock(at)
  const to = (ms: number) => move?.(Math.min(Math.max(0, Math.round(ms)), reel.length - 1))
  const byKey = (event: KeyboardEvent) => {
    const by = { ArrowUp: -1000, ArrowDown: 1000 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    to(at + (event.shiftKey ? by / 10 : by))
  }
  const drag = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    const drop = (up: globalThis.PointerEvent) => {
      const moment = momentAt(up.clientX, up.clientY)
      if (moment !== undefined && Math.abs(up.clientY - event.clientY) > 8) to(moment)
    }
    event.currentTarget.addEventListener('pointerup', drop, { once: true })
  }
  return (
    <div
      data-beside
      data-placed={name}
      className={`ml-[92px] mr-4 mb-2 mt-1 border bg-field px-4 py-2 ${open ? 'border-copper' : 'border-ink'} ${struck ? 'opacity-60' : ''}`}
    >
      <p className="flex flex-wrap items-baseline gap-x-2 text-small text-quiet">
        {move && (
          <button
            type="button"
            aria-label={`Move the ${name} at ${time}: drag it, or press the arrow keys`}
            onPointerDown={drag}
            onKeyDown={byKey}
            className={gripLook}
          >
            <GripVertical aria-hidden="true" size={14} />
          </button>
        )}
        <button type="button" className="font-mono hover:text-copper" onClick={() => playback.seek(at)} aria-label={`Go to ${time}`}>
          {time}
        </button>
        <span className={`min-w-0 flex-1 ${struck ? 'line-through' : ''}`}>
          {terms.join(' · ')}
          {struck && ' · in what is cut'}
        </span>
      </p>
      {children}
      {lacks.length > 0 && (
        <ul className="mt-1 text-amber" aria-label="What it lacks">
          {lacks.map((why) => (
            <li key={why}>{why}</li>
          ))}
        </ul>
      )}
      <p className="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 [&>button]:min-h-6 [&>button]:min-w-6">
        <Button look="link" aria-label={open ? `Close the ${name}` : `Change the ${name} at ${time}`} onClick={() => select(open ? undefined : id)}>
          {open ? 'Done' : 'Change'}
        </Button>
        {more}
        {copy && (
          <Button look="link" aria-label={`Copy the ${name} at ${time}`} onClick={copy}>
            Copy
          </Button>
        )}
        <Button
          look="link"
          aria-label={`Delete the ${name} at ${time}`}
          onClick={() => {
            remove()
            select(undefined)
          }}
        >
          Delete
        </Button>
        {known}
      </p>
      {below}
    </div>
  )
}
