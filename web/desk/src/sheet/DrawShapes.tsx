import { type PointerEvent, useRef, useState } from 'react'
import { Button } from '../ui/Button'
import { Still, useSizeAt } from './Still'
import { boundsOf, type Place, pathOf, placeOf, type Shape, within } from './shapes'

interface Drawn {
  shape: Shape
  text: string
  right?: boolean
}

interface Props {
  /** Which picture it is drawn on, in the reel's time. */
  at: number
  areas: readonly Drawn[]
  /** Whether there is only one, which a new one takes the place of. */
  one?: boolean
  add: (shape: Shape) => void
  change: (i: number, shape: Shape) => void
}

const kinds: [Shape['kind'], string][] = [
  ['rectangle', 'Rectangle'],
  ['ellipse', 'Ellipse'],
  ['polygon', 'Outline'],
]

/** Shapes on the picture at a moment: drawn by dragging, an outline by its corners; moved by dragging, or by numbers. */
export function DrawShapes({ at, areas, one, add, change }: Props) {
  const [kind, setKind] = useState<Shape['kind']>('rectangle')
  const [drawing, setDrawing] = useState<Place[]>([])
  const box = useRef<HTMLDivElement>(null)
  const size = useSizeAt(at)
  const where = (event: PointerEvent | globalThis.PointerEvent): Place => {
    const around = box.current?.getBoundingClientRect()
    return around ? placeOf((event.clientX - around.left) / around.width, (event.clientY - around.top) / around.height) : placeOf(0, 0)
  }
  const follow = (moved: (to: Place) => void, ended: (to: Place) => void) => {
    const move = (event: globalThis.PointerEvent) => moved(where(event))
    const up = (event: globalThis.PointerEvent) => {
      removeEventListener('pointermove', move)
      ended(where(event))
    }
    addEventListener('pointermove', move)
    addEventListener('pointerup', up, { once: true })
  }
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return
    event.preventDefault()
    const from = where(event)
    if (kind === 'polygon') return setDrawing([...drawing, from])
    follow(
      (to) => setDrawing([from, to]),
      (to) => {
        setDrawing([])
        // A click alone draws nothing that anybody could hit.
        if (Math.abs(to.x - from.x) > 0.01 && Math.abs(to.y - from.y) > 0.01) add({ kind, points: [from, to] })
      },
    )
  }
  const drag = (i: number) => (event: PointerEvent) => {
    if (event.button !== 0 || drawing.length > 0) return
    event.preventDefault()
    event.stopPropagation()
    const [from, bounds, shape] = [where(event), boundsOf(areas[i].shape), areas[i].shape]
    const there = (to: Place) => {
      const x = Math.min(1 - bounds.width, Math.max(0, bounds.x + to.x - from.x))
      const y = Math.min(1 - bounds.height, Math.max(0, bounds.y + to.y - from.y))
      change(i, within(shape, { ...bounds, x, y }))
    }
    follow(there, there)
  }
  const close = () => {
    add({ kind: 'polygon', points: drawing })
    setDrawing([])
  }
  return (
    <div>
      <div className="mb-1 flex flex-wrap items-center gap-x-4">
        <span className="text-quiet">{one ? 'Draw it anew:' : 'Draw:'}</span>
        {kinds.map(([value, words]) => (
          <label key={value} className="flex items-center gap-1">
            <input
              type="radio"
              name={`shape-${at}`}
              checked={kind === value}
              onChange={() => {
                setKind(value)
                setDrawing([])
              }}
            />
            {words}
          </label>
        ))}
        <Button look="link" onClick={() => add({ kind: 'rectangle', points: [placeOf(0.4, 0.4), placeOf(0.6, 0.6)] })}>
          Put one in the middle
        </Button>
        {kind === 'polygon' && drawing.length > 2 && (
          <Button look="link" onClick={close}>
            Close the outline
          </Button>
        )}
      </div>
      <div
        ref={box}
        data-testid="drawing"
        onPointerDown={press}
        className="relative w-full max-w-[560px] cursor-crosshair touch-none select-none border border-hairline"
        style={{ aspectRatio: `${size.width} / ${size.height}` }}
      >
        <Still at={at} className="pointer-events-none absolute inset-0 size-full" />
        <svg viewBox="0 0 100 100" preserveAspectRatio="none" className="absolute inset-0 size-full" aria-hidden="true">
          {areas.map((area, i) => (
            <path
              // biome-ignore lint/suspicious/noArrayIndexKey: shapes are known by their place
              key={i}
              d={pathOf(area.shape)}
              onPointerDown={drag(i)}
              vectorEffect="non-scaling-stroke"
              className={`cursor-move stroke-2 ${area.right === false ? 'fill-brick/15 stroke-brick' : 'fill-lagoon/15 stroke-lagoon'}`}
            />
          ))}
          {drawing.length > 0 && (
            <path d={pathOf({ kind, points: drawing })} vectorEffect="non-scaling-stroke" className="fill-copper/15 stroke-copper stroke-2" />
          )}
          {kind === 'polygon' && drawing.map((p) => <circle key={`${p.x} ${p.y}`} cx={p.x * 100} cy={p.y * 100} r="0.8" className="fill-copper" />)}
        </svg>
        {areas.map((area, i) => {
          const { x, y } = boundsOf(area.shape)
          return (
            <span
              // biome-ignore lint/suspicious/noArrayIndexKey: shapes are known by their place
              key={i}
              className="pointer-events-none absolute bg-ink/80 px-1 text-fine text-paper"
              style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
            >
              {one ? area.text || 'here' : i + 1}
            </span>
          )
        })}
      </div>
    </div>
  )
}
