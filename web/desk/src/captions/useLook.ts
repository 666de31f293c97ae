import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, taken } from '../app/api'
import { useWork } from '../lessons/work'
import type { Cue } from './cues'
import { mended, type Note, notesOf } from './look'

/** What in the captions that are shown somebody should look at, and mending it or leaving it. */
export function useLook() {
  const { lessonId, document, text, playback } = useWork()
  const client = useQueryClient()
  const { cues, unsure, track, draft, change } = text
  const language = track?.language ?? document.language
  // The draft is looked through as a track is, also before it is one.
  const hash = track?.hash ?? 'draft'
  const key = ['look', lessonId, hash, language, track ? undefined : draft?.share]
  const look = useQuery({
    queryKey: key,
    queryFn: async () => {
      // What was looked at is kept with what was found: until the next look, captions may be others than these.
      const lookedAt = (track ? client.getQueryData<Cue[]>(['cues', hash]) : draft?.cues) ?? []
      return {
        ...(await taken(api.GET('/api/lessons/{id}/captions/{hash}/look', { params: { path: { id: lessonId, hash }, query: { language } } }))),
        lookedAt,
      }
    },
    enabled: cues.length > 0,
    placeholderData: (before) => before,
  })
  const found = cues.length > 0 ? look.data : undefined
  const notes = useMemo(() => notesOf(found, cues, unsure, found?.lookedAt), [found, cues, unsure])
  const leave = useMutation({
    mutationFn: (left: string[]) => taken(api.PUT('/api/lessons/{id}/captions/left', { params: { path: { id: lessonId } }, body: { left } })),
    // It is gone at once, also where the look that is under way does not know of it yet; what is kept is asked again after.
    onMutate: async (left) => {
      await client.cancelQueries({ queryKey: key })
      client.setQueryData<NonNullable<typeof found>>(key, (now = found) => now && { ...now, left })
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['look', lessonId] }),
  })
  return {
    notes,
    noSpelling: found?.noSpelling,
    /** To the next one behind the playing position, and past the last to the first. */
    toNext: () => {
      const note = notes.find((n) => n.at > playback.now() + 1) ?? notes[0]
      if (!note) return
      playback.seek(note.at)
      text.open(note.cue, 'start')
    },
    /** All notes that are one of the same: the same word, or the same guideline. */
    same: (note: Note) => notes.filter((n) => n.kind === note.kind && n.sentence === note.sentence && n.mends.length > 0),
    mend: (some: Note[]) => change(mended(cues, some)),
    mendWith: (note: Note, which: number) => change(note.mends[which].changes(cues)),
    leave: (some: Note[]) => leave.mutate([...(found?.left ?? []), ...some.map((n) => n.key)]),
  }
}

export type TextNotes = ReturnType<typeof useLook>
