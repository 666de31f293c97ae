import type { Document } from '../lessons/useLesson'
import type { Cut } from '../sheet/blocks'
import { cutWithin, restored, withCut } from './cuts'

/** Cutting the selected stretch, and giving back what is cut. */
export function useCutting(document: Document | undefined, edit: (change: (d: Document) => Document) => void, stretch: Cut | undefined) {
  const cut = stretch && document ? cutWithin(document.cuts, stretch) : 0
  return {
    /** How much of the selected stretch is cut, in milliseconds. */
    cut,
    /** How much of it is kept. */
    kept: stretch ? stretch.end - stretch.start - cut : 0,
    take: () => stretch && edit((d) => ({ ...d, cuts: withCut(d.cuts, stretch) })),
    giveBack: (back: Cut) => edit((d) => ({ ...d, cuts: restored(d.cuts, back) })),
  }
}

export type Cutting = ReturnType<typeof useCutting>
