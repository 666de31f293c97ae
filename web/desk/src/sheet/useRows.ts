import { useVirtualizer } from '@tanstack/react-virtual'
import { type RefObject, useCallback } from 'react'
import { type Block, blockAt } from './blocks'
import type { Scale } from './scales'

const foldPx = 32

/** The rows that are on the screen, and how far down the sheet any moment stands, on the screen or not. */
export function useRows(scroller: RefObject<HTMLElement | null>, sheet: RefObject<HTMLElement | null>, blocks: Block[], scale: Scale) {
  const virtualizer = useVirtualizer({
    count: blocks.length,
    getScrollElement: () => scroller.current,
    getItemKey: (i) => blocks[i]?.start ?? i,
    estimateSize: (i) =>
      (blocks[i].fold ? foldPx : scale.row) + [...blocks[i].headings, ...blocks[i].said, ...blocks[i].below].reduce((sum, thing) => sum + thing.px, 0),
    overscan: 6,
  })

  /** The part of a row that stands for its time, below its heading: from where, and how high. */
  const span = useCallback(
    (index: number) => {
      const row = virtualizer.measurementsCache[index]
      if (!row) return undefined
      const shown = sheet.current?.querySelector<HTMLElement>(`[data-block="${index}"]`)
      const top = shown?.offsetTop ?? 0
      return { top: row.start + top, height: shown ? shown.offsetHeight : Math.max(1, row.size - top) }
    },
    [virtualizer, sheet],
  )

  /** How far down the sheet a moment stands, in pixels. */
  const placeOf = useCallback(
    (ms: number) => {
      const index = blockAt(blocks, ms)
      const at = index < 0 ? undefined : span(index)
      if (!at) return undefined
      const { start, end } = blocks[index]
      return at.top + at.height * Math.min(1, (ms - start) / Math.max(1, end - start))
    },
    [blocks, span],
  )

  /** The moment at a height of the window; beyond the rows that of the nearest. */
  const momentAt = useCallback(
    (y: number) => {
      const down = y - (sheet.current?.getBoundingClientRect().top ?? 0)
      const rows = virtualizer.measurementsCache
      let index = Math.max(
        0,
        rows.findLastIndex((r) => r.start <= down),
      )
      let at = span(index)
      // Over a heading: the end of what stands above it.
      if (at && down < at.top && index > 0) at = span(--index)
      const block = blocks[index]
      if (!at || !block) return 0
      return Math.round(block.start + Math.max(0, Math.min(1, (down - at.top) / at.height)) * (block.end - block.start))
    },
    [blocks, span, virtualizer, sheet],
  )

  /** Brings a moment into view, without moving what can be seen already. */
  const show = useCallback((ms: number) => virtualizer.scrollToIndex(Math.max(0, blockAt(blocks, ms)), { align: 'auto' }), [blocks, virtualizer])

  return { virtualizer, placeOf, momentAt, show }
}

export type Rows = ReturnType<typeof useRows>
