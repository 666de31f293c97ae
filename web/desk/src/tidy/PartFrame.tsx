import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import type { Schemas } from '../app/api'

type Part = Schemas['PicturePart']

interface Props {
  picture: string | undefined
  recorded: Schemas['PictureSize']
  part: Part
  take: (part: Part) => void
}

const smallest = 0.05
const corners = [
  ['top left', 0, 0],
  ['top right', 1, 0],
  ['bottom left', 0, 1],
  ['bottom right', 1, 1],
] as const
type Grip = 'all' | (typeof corners)[number]

/** The part of the recording that is seen, set by its corners or moved as a whole; with the arrow keys a pixel at a time. */
export function PartFrame({ picture, recorded, part, take }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const [moving, setMoving] = useState<Part>()
  const shown = moving ?? part

  const moved = (from: Part, grip: Grip, dx: number, dy: number): Part => {
    if (grip === 'all') return { ...from, x: clamp(from.x + dx, 0, 1 - from.width), y: clamp(from.y + dy, 0, 1 - from.height) }
    const [, right, bottom] = grip
    const x = right ? from.x : clamp(from.x + dx, 0, from.x + from.width - smallest)
    const y = bottom ? from.y : clamp(from.y + dy, 0, from.y + from.height - smallest)
    return {
      x,
      y,
      width: right ? clamp(from.width + dx, smallest, 1 - from.x) : from.x + from.width - x,
      height: bottom ? clamp(from.height + dy, smallest, 1 - from.y) : from.y + from.height - y,
    }
  }
  const press = (grip: Grip) => (event: PointerEvent<HTMLElement>) => {
    const size = box.current?.getBoundingClientRect()
    if (!size) return
    event.preventDefault()
    event.stopPropagation()
    event.currentTarget.focus()
    const from = part
    const start = { x: event.clientX, y: event.clientY }
    let last = from
    const follow = (now: globalThis.PointerEvent) => {
      last = moved(from, grip, (now.clientX - start.x) / size.width, (now.clientY - start.y) / size.height)
      setMoving(last)
    }
    const end = () => {
      removeEventListener('pointermove', follow)
      removeEventListener('pointerup', end)
      setMoving(undefined)
      if (last !== from) take(last)
    }
    addEventListener('pointermove', follow)
    addEventListener('pointerup', end)
  }
  const keyed = (grip: Grip) => (event: KeyboardEvent) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key]
    if (!step) return
    event.preventDefault()
    event.stopPropagation()
    const pixels = event.shiftKey ? 10 : 1
    take(moved(part, grip, (step[0] * pixels) / recorded.width, (step[1] * pixels) / recorded.height))
  }
  const percent = (share: number) => `${share * 100}%`
  return (
    <div
      ref={box}
      data-testid="part-frame"
      className="relative mt-6 w-full select-none overflow-hidden border border-ink bg-field"
      style={{ aspectRatio: `${recorded.width} / ${recorded.height}` }}
    >
      {picture && <img src={picture} alt="" draggable={false} className="absolute inset-0 h-full w-full" />}
      <div
        className="absolute border-2 border-copper shadow-[0_0_0_2000px_rgb(29_33_41/0.45)]"
        style={{ left: percent(shown.x), top: percent(shown.y), width: percent(shown.width), height: percent(shown.height) }}
      >
        <button
          type="button"
          aria-label="Move the part"
          onPointerDown={press('all')}
          onKeyDown={keyed('all')}
          className="absolute inset-3 min-h-6 min-w-6 cursor-move touch-none bg-transparent"
        />
        {corners.map((corner) => {
          const [name, right, bottom] = corner
          return (
            <button
              key={name}
              type="button"
              aria-label={`Move the ${name} corner`}
              onPointerDown={press(corner)}
              onKeyDown={keyed(corner)}
              className="absolute size-6 -translate-x-1/2 -translate-y-1/2 touch-none pointer-coarse:size-11"
              style={{ left: percent(right), top: percent(bottom), cursor: right === bottom ? 'nwse-resize' : 'nesw-resize' }}
            >
              <span aria-hidden="true" className="mx-auto block size-2.5 border border-paper bg-copper" />
            </button>
          )
        })}
      </div>
    </div>
  )
}

function clamp(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(Math.max(least, most), value))
}
