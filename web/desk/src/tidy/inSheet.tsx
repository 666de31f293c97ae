import { useMemo } from 'react'
import type { Looking, SheetThing } from '../sheet/thing'
import { SuggestionBox } from './SuggestionBox'
import { useTidying } from './tidying'

/** Suggested cuts, while a lesson is tidied. */
export function useSuggestionNotes({ stage }: Looking): SheetThing[] {
  const { open, suggesting } = useTidying().suggestions
  return useMemo(
    () =>
      stage === 'tidy'
        ? open.map((s) => ({
            key: `suggestion ${s.range.start}`,
            at: s.range.start,
            place: 'below',
            px: 44,
            show: () => <SuggestionBox suggestion={s} suggesting={suggesting} />,
          }))
        : [],
    [stage, open, suggesting],
  )
}
