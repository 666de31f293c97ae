import { useQuery } from '@tanstack/react-query'
import { api, refusal, type Schemas, taken } from '../app/api'

export type LessonPicture = NonNullable<Schemas['LessonDocument']['picture']>

/** Where a picture of a lesson lies: one that it could have, or the one that it is known by as it was saved. */
export function pictureAddress(lessonId: string, picture: LessonPicture | null | undefined, revision: number, small = false) {
  const which = picture?.own ? `own=${picture.own}` : picture?.at != null ? `at=${Math.round(picture.at)}` : `revision=${revision}`
  return `/api/lessons/${lessonId}/picture.jpg?${which}${small ? '&small=true' : ''}`
}

/** Moments whose pictures could stand for the lesson as it was saved. */
export function useProposals(lessonId: string, revision: number) {
  return useQuery({
    queryKey: ['pictures', lessonId, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/pictures', { params: { path: { id: lessonId } } })),
    placeholderData: (before) => before,
  })
}

/** Sends a picture, and says what names it. */
export async function sendPicture(file: File): Promise<Schemas['GivenPictureView']> {
  const answer = await fetch('/api/pictures', { method: 'PUT', body: file, headers: { 'Content-Type': 'application/octet-stream' } }).catch(() => undefined)
  if (!answer?.ok) throw refusal(await answer?.json().catch(() => undefined), answer?.status ?? 0)
  return answer.json()
}
