import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'

export type LessonList = Schemas['ListView']

/** The lists across courses; where a lesson is named, with whether each holds it. What is hidden of them is another once it stands somewhere. */
export const useAllLists = (lesson?: string, stands?: boolean) =>
  useQuery({
    queryKey: ['lists', lesson ?? '', stands ?? false],
    placeholderData: keepPreviousData,
    queryFn: () => taken(api.GET('/api/lists', { params: { query: lesson ? { lesson } : {} } })),
  })

const path = (list: string, lesson: string) => ({ params: { path: { id: list, lesson } } })
const putIn = (list: string, lesson: string) => taken(api.PUT('/api/lists/{id}/lessons/{lesson}', path(list, lesson)))
const takeOut = (list: string, lesson: string) => taken(api.DELETE('/api/lists/{id}/lessons/{lesson}', path(list, lesson)))

/**
 * In which lists a lesson is to stand. Before it is released that is part of the release, and the list that was used last is chosen already; once it stands
 * somewhere, it is changed at once.
 */
export function useLists(lesson: string, stands: boolean) {
  const client = useQueryClient()
  const lists = useAllLists(lesson, stands)
  const [wanted, want] = useState<Record<string, boolean>>({})
  const changed = () => client.invalidateQueries({ queryKey: ['lists'] })
  const isIn = (list: LessonList) => wanted[list.id] ?? (list.holds || (!stands && list.isLast))
  const change = useMutation({
    mutationFn: ({ list, holds }: { list: string; holds: boolean }) => (holds ? putIn(list, lesson) : takeOut(list, lesson)),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  return {
    all: lists.data ?? [],
    isIn,
    tick: (list: LessonList, holds: boolean) => {
      want((now) => ({ ...now, [list.id]: holds }))
      if (stands) change.mutate({ list: list.id, holds })
    },
    /** Wants it in a list that was made just now. */
    wantIn: (list: string) => want((now) => ({ ...now, [list]: true })),
    /** Does what was ticked. */
    apply: async () => {
      for (const list of lists.data ?? []) if (isIn(list) !== list.holds) await (isIn(list) ? putIn(list.id, lesson) : takeOut(list.id, lesson))
      await changed()
    },
  }
}
