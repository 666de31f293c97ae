import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type WaitingNote = Schemas['WaitingNote']

/** What learners said of moments of a lesson, and nobody has answered yet. */
export const useNotes = (lessonId: string) =>
  useQuery({ queryKey: ['notes', lessonId], queryFn: () => taken(api.GET('/api/lessons/{id}/notes', { params: { path: { id: lessonId } } })) })

export function useAnswer(lessonId: string) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: ({ note, text }: { note: string; text: string }) =>
      taken(api.POST('/api/lessons/{id}/notes/{note}/answer', { params: { path: { id: lessonId, note } }, body: { text } })),
    onSettled: () => client.invalidateQueries({ queryKey: ['notes', lessonId] }),
  })
}
