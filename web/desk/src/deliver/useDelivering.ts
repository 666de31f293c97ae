import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { isUnderWay } from './places'

/** What a lesson would come to with each profile, and what stands of it at each place. */
export function useDelivering(lessonId: string) {
  const deliver = useQuery({
    queryKey: ['deliver', lessonId],
    queryFn: () => taken(api.GET('/api/lessons/{id}/deliver', { params: { path: { id: lessonId } } })),
    refetchInterval: (query) => (query.state.data?.notReady?.code === 'recording-not-looked-through' ? 2000 : 15_000),
  })
  const places = useQuery({
    queryKey: ['releases', lessonId],
    queryFn: () => taken(api.GET('/api/lessons/{id}/releases', { params: { path: { id: lessonId } } })),
    refetchInterval: (query) => (query.state.data?.some((p) => isUnderWay(p.way?.phase)) ? 1000 : 15_000),
  })
  return { deliver, places }
}
