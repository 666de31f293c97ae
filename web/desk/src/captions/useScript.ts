import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'

/** The script of a lesson, how far it is, and where it differs from the voice; nothing where there is none. */
export function useScript(lessonId: string) {
  return useQuery({
    queryKey: ['script', lessonId],
    queryFn: async () => (await taken(api.GET('/api/lessons/{id}/script', { params: { path: { id: lessonId } } }))) ?? null,
  }).data
}
