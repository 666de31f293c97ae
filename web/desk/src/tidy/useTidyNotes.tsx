import { useMemo } from 'react'
import { HardNote, MoveInNote } from '../movein/SheetNotes'
import type { Detail } from '../movein/useDetail'
import type { MoveIns } from '../movein/useMoveIns'
import type { SheetNote } from '../sheet/note'
import { SuggestionBox } from './SuggestionBox'
import type { Suggestions } from './useSuggestions'

const none: SheetNote[] = []

/** What stands in the sheet while a lesson is tidied; a new kind of note is one more list here. */
export function useTidyNotes(tidying: boolean, moveIns: MoveIns, detail: Detail, suggestions: Suggestions): SheetNote[] {
  const { list, acting } = moveIns
  const { stretches, at } = detail
  const { open, suggesting } = suggestions
  return useMemo(
    () =>
      tidying
        ? [
            ...list.map((m) => ({ key: `move-in ${m.id}`, at: m.span.start, px: 34, show: () => <MoveInNote moveIn={m} acting={acting} /> })),
            ...stretches.map((h) => ({ key: `hard ${h.span.start}`, at: h.span.start, px: 24, show: () => <HardNote stretch={h} at={at} acting={acting} /> })),
            ...open.map((s) => ({
              key: `suggestion ${s.range.start}`,
              at: s.range.start,
              px: 44,
              show: () => <SuggestionBox suggestion={s} suggesting={suggesting} />,
            })),
          ]
        : none,
    [tidying, list, acting, stretches, at, open, suggesting],
  )
}
