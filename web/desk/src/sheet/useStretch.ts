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

/** Selecting a stretch of the sheet: by dragging down it, or row by row with the keys. */
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
    let dragging = false
    const moved = (now: globalThis.PointerEvent) => {
      dragging ||= Math.abs(now.clientY - from.y) >= dragFromPx
      if (!dragging) return
      const to = momentAt(now.clientY)
      if (to !== from.ms) setStretch({ start: Math.min(from.ms, to), end: Math.max(from.ms, to) })
    }
    const released = () => {
      removeEventListener('pointermove', moved)
      removeEventListener('pointerup', released)
      if (!dragging) return
      // The click that follows a drag within one row or one caption is not meant.
      const unmeant = (click: MouseEvent) => click.stopPropagation()
      addEventListener('click', unmeant, { capture: true })
      setTimeout(() => removeEventListener('click', unmeant, { capture: true }))
    }
    addEventListener('pointermove', moved)
    addEventListener('pointerup', released)
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

  return { band, press }
}
