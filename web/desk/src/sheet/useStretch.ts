import { type PointerEvent, useEffect, useRef } from 'react'
import { useKey } from '../app/keys'
import type { Block, Cut } from './blocks'
import type { Playback } from './usePlayback'
import type { Rows } from './useRows'

interface Use {
  rows: Rows
  /** Changes when rows move. */
  height: number
  blocks: Block[]
  playback: Playback
  stretch: Cut | undefined
  setStretch?: (stretch: Cut | undefined) => void
}

const dragFromPx = 5
/** A finger that rests this long selects; one that moves before scrolls. */
const restsMs = 350
const restsWithinPx = 10

/** Selecting a stretch of the sheet: by dragging down it, with a finger after it rested, by its edges, or row by row with the keys. */
export function useStretch({ rows, height, blocks, playback, stretch, setStretch }: Use) {
  const band = useRef<HTMLDivElement>(null)
  const { placeOf, momentAt, show } = rows

  // biome-ignore lint/correctness/useExhaustiveDependencies: the height stands for the rows' places
  useEffect(() => {
    const [top, bottom] = stretch ? [placeOf(stretch.start), placeOf(stretch.end)] : []
    if (!band.current) return
    band.current.hidden = top === undefined || bottom === undefined
    if (top === undefined || bottom === undefined) return
    band.current.style.transform = `translateY(${top}px)`
    band.current.style.height = `${Math.max(4, bottom - top)}px`
  }, [placeOf, stretch, height])

  const press = (event: PointerEvent<HTMLElement>) => {
    if (!setStretch || event.button !== 0 || !(event.target instanceof Element) || event.target.closest('input, a, [data-beside]')) return
    const from = { y: event.clientY, ms: momentAt(event.clientY) }
    const byFinger = event.pointerType === 'touch'
    let dragging = false
    let rested = !byFinger
    const rests = byFinger
      ? setTimeout(() => {
          rested = true
          setStretch({ start: from.ms, end: Math.min(blocks.at(-1)?.end ?? from.ms, from.ms + 1000) })
        }, restsMs)
      : undefined
    // Once a finger selects, the sheet does not scroll under it.
    const still = (touch: TouchEvent) => rested && touch.preventDefault()
    const moved = (now: globalThis.PointerEvent) => {
      if (!rested) {
        if (Math.abs(now.clientY - from.y) > restsWithinPx) released()
        return
      }
      dragging ||= Math.abs(now.clientY - from.y) >= dragFromPx
      if (!dragging) return
      const to = momentAt(now.clientY)
      if (to !== from.ms) setStretch({ start: Math.min(from.ms, to), end: Math.max(from.ms, to) })
    }
    const released = () => {
      clearTimeout(rests)
      removeEventListener('pointermove', moved)
      removeEventListener('pointerup', released)
      removeEventListener('pointercancel', released)
      removeEventListener('touchmove', still)
      if (!dragging) return
      // The click that follows a drag within one row or one caption is not meant.
      const unmeant = (click: MouseEvent) => click.stopPropagation()
      addEventListener('click', unmeant, { capture: true })
      setTimeout(() => removeEventListener('click', unmeant, { capture: true }))
    }
    addEventListener('pointermove', moved)
    addEventListener('pointerup', released)
    addEventListener('pointercancel', released)
    if (byFinger) addEventListener('touchmove', still, { passive: false })
  }

  /** Drags one edge of the stretch; the other stays. */
  const pressEdge = (edge: 'start' | 'end') => (event: PointerEvent<HTMLElement>) => {
    if (!stretch || !setStretch) return
    event.preventDefault()
    event.stopPropagation()
    const other = edge === 'start' ? stretch.end : stretch.start
    const moved = (now: globalThis.PointerEvent) => {
      const to = momentAt(now.clientY)
      if (to !== other) setStretch({ start: Math.min(to, other), end: Math.max(to, other) })
    }
    const released = () => {
      removeEventListener('pointermove', moved)
      removeEventListener('pointerup', released)
      removeEventListener('pointercancel', released)
    }
    addEventListener('pointermove', moved)
    addEventListener('pointerup', released)
    addEventListener('pointercancel', released)
  }

  const extend = (by: 1 | -1) => {
    if (!setStretch) return
    const edges = [...blocks.map((b) => b.start), blocks.at(-1)?.end ?? 0]
    const { start, end } = stretch ?? { start: playback.now(), end: playback.now() }
    const to = by > 0 ? edges.find((e) => e > end) : edges.findLast((e) => e < end)
    if (to === undefined) return
    setStretch(to > start ? { start, end: to } : undefined)
    show(to - 1)
  }
  useKey('shift+ArrowDown', () => extend(1))
  useKey('shift+ArrowUp', () => extend(-1))
  useKey('Escape', () => setStretch?.(undefined))

  return { band, press, pressEdge }
}
