import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, type Schemas, sent, taken } from '../app/api'

/** A feed, and what can be done to it; each change gives the feed back as it then is. */
export function useFeed(id: string) {
  const client = useQueryClient()
  const path = { id }
  const key = ['feed', id]
  const changed = (feed: Schemas['FeedView']) => {
    client.setQueryData(key, feed)
    for (const other of [['outlets'], ['board'], ['releases']]) client.invalidateQueries({ queryKey: other })
  }
  const told = { onSuccess: changed, onError: (problem: Error) => toast.error(problem.message) }
  return {
    feed: useQuery({
      queryKey: key,
      queryFn: () => taken(api.GET('/api/feeds/{id}', { params: { path } })),
      // A directory answers by itself.
      refetchInterval: (query) => (query.state.data?.directories.some((d) => d.submittedAt && !d.answeredAt) ? 5000 : false),
    }),
    submit: useMutation({
      mutationFn: ({ code, isSound: sound }: { code: string; isSound: boolean }) =>
        taken(api.POST('/api/feeds/{id}/directories/{code}', { params: { path: { id, code }, query: { sound } } })),
      ...told,
    }),
    addListener: useMutation({
      mutationFn: (name: string) => taken(api.POST('/api/feeds/{id}/listeners', { params: { path }, body: { name } })),
      onSuccess: changed,
    }),
    withdraw: useMutation({
      mutationFn: (listener: string) => taken(api.DELETE('/api/feeds/{id}/listeners/{listener}', { params: { path: { id, listener } } })),
      ...told,
    }),
    save: useMutation({ mutationFn: (body: Schemas['FeedSettings']) => taken(api.PUT('/api/feeds/{id}', { params: { path }, body })), onSuccess: changed }),
    move: useMutation({ mutationFn: () => taken(api.POST('/api/feeds/{id}/address', { params: { path } })), ...told }),
    dropArtwork: useMutation({ mutationFn: () => taken(api.DELETE('/api/feeds/{id}/artwork', { params: { path } })), ...told }),
    takeArtwork: useMutation({
      mutationFn: (file: File) => sent<Schemas['FeedView']>(`/api/feeds/${id}/artwork`, file),
      onSuccess: changed,
    }),
  }
}
