import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { SheetThing } from '../sheet/thing'
import { Note } from './Note'
import { useNotes } from './useNotes'

/** Notes from learners, wherever the sheet stands: what is wrong may be mended by a cut, a move-in or a section. */
export function useLearnerNotes(): SheetThing[] {
  const { lessonId } = useWork()
  const notes = useNotes(lessonId).data
  return useMemo(
    () => (notes ?? []).map((n) => ({ key: `note ${n.id}`, at: n.at ?? 0, place: 'below', px: 36, show: () => <Note note={n} lessonId={lessonId} /> })),
    [notes, lessonId],
  )
}
