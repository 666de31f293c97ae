import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, taken } from '../app/api'

export function useQueue() {
  return useQuery({ queryKey: ['queue'], queryFn: () => taken(api.GET('/api/queue')), refetchInterval: 15_000 })
}

export function useCancel() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (id: string) => taken(api.POST('/api/renditions/{id}/cancel', { params: { path: { id } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => {
      client.invalidateQueries({ queryKey: ['queue'] })
      client.invalidateQueries({ queryKey: ['deliver'] })
    },
  })
}
