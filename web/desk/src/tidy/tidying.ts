import { createContext, useContext } from 'react'
import type { Detail } from '../movein/useDetail'
import type { MoveIns } from '../movein/useMoveIns'
import type { Cut } from '../sheet/blocks'
import type { Cutting } from './useCutting'
import type { Suggestions } from './useSuggestions'

/** What a lesson is tidied with. */
export interface Tidying {
  /** What is selected on the sheet. */
  stretch: Cut | undefined
  setStretch: (stretch: Cut | undefined) => void
  cutting: Cutting
  suggestions: Suggestions
  moveIns: MoveIns
  detail: Detail
}

export const TidyingContext = createContext<Tidying | undefined>(undefined)

export function useTidying(): Tidying {
  const tidying = useContext(TidyingContext)
  if (!tidying) throw new Error('This stands on the page of a lesson alone.')
  return tidying
}
