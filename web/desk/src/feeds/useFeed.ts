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
    feed: useQuery({ queryKey: key, queryFn: () => taken(api.GET('/api/feeds/{id}', { params: { path } })) }),
    save: useMutation({ mutationFn: (body: Schemas['FeedSettings']) => taken(api.PUT('/api/feeds/{id}', { params: { path }, body })), onSuccess: changed }),
    move: useMutation({ mutationFn: () => taken(api.POST('/api/feeds/{id}/address', { params: { path } })), ...told }),
    dropArtwork: useMutation({ mutationFn: () => taken(api.DELETE('/api/feeds/{id}/artwork', { params: { path } })), ...told }),
    takeArtwork: useMutation({
      mutationFn: (file: File) => sent<Schemas['FeedView']>(`/api/feeds/${id}/artwork`, file),
      onSuccess: changed,
    }),
  }
}
