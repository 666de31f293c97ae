import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { useWork } from './work'

/** What keeps things of the lesson from learners, as it was last saved. */
export function useAllLacks() {
  const { lessonId, revision } = useWork()
  return useQuery({
    queryKey: ['lacks', lessonId, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/lacks', { params: { path: { id: lessonId } } })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  }).data
}

/** What keeps one thing from them, in sentences. */
export const useLacks = (of: string, id: string) => (useAllLacks() ?? []).filter((l) => l.of === of && l.id === id).map((l) => l.why)
