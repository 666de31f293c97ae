import type { Schemas } from '../app/api'
import type { Cut } from '../sheet/blocks'

type Range = Schemas['TimeRange']

const range = (start: number, end: number): Range => ({ start, end, length: end - start })

/** The cuts with one more; those that overlap or touch become one. */
export function withCut(cuts: Cut[], more: Cut): Range[] {
  const touching = cuts.filter((c) => c.end >= more.start && c.start <= more.end)
  const joined = range(Math.min(more.start, ...touching.map((c) => c.start)), Math.max(more.end, ...touching.map((c) => c.end)))
  return [...cuts.filter((c) => !touching.includes(c)).map((c) => range(c.start, c.end)), joined].sort((a, b) => a.start - b.start)
}

/** The cuts without a stretch; one that it lies in the middle of becomes two. */
export function restored(cuts: Cut[], back: Cut): Range[] {
  return cuts.flatMap((c) => {
    if (c.end <= back.start || c.start >= back.end) return [range(c.start, c.end)]
    return [range(c.start, back.start), range(back.end, c.end)].filter((part) => part.length > 0)
  })
}

/** How much of a stretch is cut, in milliseconds. */
export function cutWithin(cuts: Cut[], stretch: Cut): number {
  return cuts.reduce((sum, c) => sum + Math.max(0, Math.min(c.end, stretch.end) - Math.max(c.start, stretch.start)), 0)
}
