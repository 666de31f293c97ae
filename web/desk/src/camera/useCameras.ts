import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { type Document, recordingsOf } from '../lessons/useLesson'

/** Where the cameras of a lesson are seen, as it will be rendered. */
export function useCameras(document: Document) {
  const { cameras, cameraLook, cameraStretches, cuts, canvas, frames, moveIns } = document
  return useQuery({
    queryKey: ['cameras', recordingsOf(document), cameras, cameraLook, cameraStretches, cuts, canvas, frames, moveIns],
    queryFn: () => taken(api.POST('/api/cameras', { body: { document } })),
    enabled: cameras.length > 0,
    // A camera's own recording is looked through meanwhile.
    refetchInterval: (query) => (query.state.data?.cameras.some((c) => !c.viewable && !c.failure) || query.state.data?.notLookedAt.length ? 3000 : false),
    placeholderData: (before) => before,
  }).data
}
