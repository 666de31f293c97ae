import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'

export function useLessons(refetchInterval?: number) {
  return useQuery({ queryKey: ['lessons'], refetchInterval, queryFn: () => taken(api.GET('/api/lessons')) })
}

export function useRecording(hash: string | undefined) {
  return useQuery({ queryKey: ['recording', hash], queryFn: () => taken(api.GET('/api/recordings/{hash}', { params: { path: { hash: hash ?? '' } } })), enabled: Boolean(hash) })
}

export function useCues(hash: string | undefined) {
  return useQuery({
    queryKey: ['cues', hash],
    queryFn: () => taken(api.GET('/api/captions/{hash}', { params: { path: { hash: hash ?? '' } } })),
    enabled: Boolean(hash),
    staleTime: Number.POSITIVE_INFINITY,
  })
}
