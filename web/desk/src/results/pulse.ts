import type { Pulse } from './useResults'

type Step = Pulse['steps'][number]

/** What learners did in a stretch of the sheet: of each figure the most of its steps, of those who left all. */
export function pulseIn({ steps }: Pulse, start: number, end: number) {
  const there = steps.filter((s) => s.at >= start && s.at < end)
  const most = (figure: (s: Step) => number) => there.reduce((top, s) => Math.max(top, figure(s)), 0)
  return { steps: there, seen: most((s) => s.seen), again: most((s) => s.again), left: there.reduce((sum, s) => sum + s.left, 0) }
}

/** A place that stands out. */
export interface Place {
  at: number
  count: number
}

/** How far apart places must be to be named apart, in milliseconds. */
const apart = 10_000

/** Where most did something: a few moments, the most frequent first, none near another. */
export function placesOf(steps: readonly Step[], figure: (s: Step) => number, most = 3, least = 2): Place[] {
  const places: Place[] = []
  for (const step of [...steps].sort((a, b) => figure(b) - figure(a) || a.at - b.at)) {
    if (places.length === most || figure(step) < least) break
    if (places.every((p) => Math.abs(p.at - step.at) >= apart)) places.push({ at: step.at, count: figure(step) })
  }
  return places
}

/** Where learners leave, gathered over the length that places are apart: few leave in the same second. */
export function leavingOf({ steps }: Pulse, length: number): Place[] {
  const gathered: Step[] = []
  for (let at = 0; at < length; at += apart) {
    const there = steps.filter((s) => s.at >= at && s.at < at + apart)
    const left = there.reduce((sum, s) => sum + s.left, 0)
    const first = there.find((s) => s.left > 0)
    if (first) gathered.push({ ...first, left })
  }
  return placesOf(gathered, (s) => s.left)
}
