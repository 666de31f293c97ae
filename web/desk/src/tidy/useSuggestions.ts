import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useRef } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import type { Playback } from '../sheet/usePlayback'
import { cutWithin, withCut } from './cuts'
import type { Suggesting, Suggestion } from './SuggestionBox'

type View = Schemas['SuggestionsView']
type Kept = Schemas['Suggesting']

const same = (a: { start: number; end: number }, b: { start: number; end: number }) => a.start === b.start && a.end === b.end

/** The cuts that are suggested and neither made nor left, and what can be done with them. */
export function useSuggestions(
  lessonId: string,
  analysed: boolean,
  document: Document | undefined,
  edit: (change: (d: Document) => Document) => void,
  playback: Playback,
) {
  const client = useQueryClient()
  const key = ['suggestions', lessonId, analysed]
  const { data } = useQuery({ queryKey: key, queryFn: () => taken(api.GET('/api/lessons/{id}/suggestions', { params: { path: { id: lessonId } } })) })
  const cuts = document?.cuts
  const open = useMemo(
    () =>
      data && cuts
        ? data.suggestions.filter((s) => !data.suggesting.left.some((l) => same(l, s.range)) && cutWithin(cuts, s.range) < s.range.length * 0.9)
        : [],
    [data, cuts],
  )

  const save = (wanted: Kept) => {
    client.setQueryData<View>(key, (before) => before && { ...before, suggesting: wanted })
    return taken(api.PUT('/api/lessons/{id}/suggestions', { params: { path: { id: lessonId } }, body: wanted })).then(
      (view) => client.setQueryData(key, view),
      (refused: Error) => {
        toast.error(refused.message)
        client.invalidateQueries({ queryKey: key })
      },
    )
  }
  const take = (list: Suggestion[]) => edit((d) => ({ ...d, cuts: list.reduce<Document['cuts']>((made, s) => withCut(made, s.range), d.cuts) }))
  const latest = useRef({ take, save, data, playback })
  latest.current = { take, save, data, playback }
  // Stays the same, so that rows of the sheet need not be drawn again.
  const suggesting = useMemo<Suggesting>(
    () => ({
      take: (s) => latest.current.take([s]),
      leave: (s) => {
        const { data: view, save: keep } = latest.current
        if (view) keep({ ...view.suggesting, left: [...view.suggesting.left, s.range] })
      },
      hear: (s) => latest.current.playback.hearCut(s.range),
      look: (s) => latest.current.playback.hear(s.range),
    }),
    [],
  )
  return {
    data,
    open,
    suggesting,
    take,
    settle: (settings: Kept['settings']) => data && save({ ...data.suggesting, settings }),
    offerAgain: () => data && save({ ...data.suggesting, left: [] }),
  }
}

export type Suggestions = ReturnType<typeof useSuggestions>
