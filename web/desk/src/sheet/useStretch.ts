import { type PointerEvent, type RefObject, useEffect, useRef } from 'react'
import { useKey } from '../app/keys'
import { type Block, type Cut, placeOf } from './blocks'
import type { Playback } from './usePlayback'

interface Use {
  sheet: RefObject<HTMLDivElement | null>
  blocks: Block[]
  playback: Playback
  stretch: Cut | undefined
  setStretch?: (stretch: Cut | undefined) => void
}

const dragFromPx = 5

/** Selecting a stretch of the sheet: by dragging down it, or row by row with the keys. */
export function useStretch({ sheet, blocks, playback, stretch, setStretch }: Use) {
  const band = useRef<HTMLDivElement>(null)

  useEffect(() => {
    const place = () => {
      const [top, bottom] = stretch && sheet.current ? [placeOf(sheet.current, blocks, stretch.start), placeOf(sheet.current, blocks, stretch.end)] : []
      if (!band.current) return
      band.current.hidden = top === undefined || bottom === undefined
      if (top === undefined || bottom === undefined) return
      band.current.style.transform = `translateY(${top}px)`
      band.current.style.height = `${Math.max(4, bottom - top)}px`
    }
    place()
    const resized = new ResizeObserver(place)
    if (sheet.current) resized.observe(sheet.current)
    return () => resized.disconnect()
  }, [sheet, blocks, stretch])

  /** The moment at a height of the window; beyond the rows that of the nearest. */
  const momentAt = (y: number) => {
    const rows = [...(sheet.current?.querySelectorAll<HTMLElement>('[data-block]') ?? [])]
    const row = rows.findLast((r) => r.getBoundingClientRect().top <= y) ?? rows[0]
    const block = blocks[Number(row?.dataset.block ?? 0)]
    if (!row || !block) return 0
    const box = row.getBoundingClientRect()
    return Math.round(block.start + Math.max(0, Math.min(1, (y - box.top) / box.height)) * (block.end - block.start))
  }

  const press = (event: PointerEvent<HTMLElement>) => {
    if (!setStretch || event.button !== 0 || !(event.target instanceof Element) || event.target.closest('input, a')) return
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
    if (to !== undefined) setStretch(to > start ? { start, end: to } : undefined)
  }
  useKey('shift+ArrowDown', () => extend(1))
  useKey('shift+ArrowUp', () => extend(-1))
  useKey('Escape', () => setStretch?.(undefined))

  return { band, press }
}
