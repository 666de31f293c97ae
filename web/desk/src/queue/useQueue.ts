import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, taken } from '../app/api'

export function useQueue() {
  return useQuery({ queryKey: ['queue'], queryFn: () => taken(api.GET('/api/queue')), refetchInterval: 15_000 })
}

type Act = 'cancel' | 'hold' | 'go-on' | 'first'

/** What can be done with a rendition in the queue. */
export function useQueueAct() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: ({ id, act }: { id: string; act: Act }) => taken(api.POST(`/api/renditions/{id}/${act}`, { params: { path: { id } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => {
      client.invalidateQueries({ queryKey: ['queue'] })
      client.invalidateQueries({ queryKey: ['deliver'] })
    },
  })
}
