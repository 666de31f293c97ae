import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type Reel = Schemas['ReelView']

export function useLessons(refetchInterval?: number) {
  return useQuery({ queryKey: ['lessons'], refetchInterval, queryFn: () => taken(api.GET('/api/lessons')) })
}

/** A lesson's recordings, one after the other; what is found of them comes as it is found. */
export function useReel(hashes: string[] | undefined) {
  const names = hashes?.join(',')
  return useQuery({
    queryKey: ['reel', names],
    queryFn: () => taken(api.GET('/api/reels/{hashes}', { params: { path: { hashes: names ?? '' } } })),
    enabled: Boolean(names),
    // With another order the sheet stays until the new one is there.
    placeholderData: (before) => before,
  })
}

/** The number of the recording that lies at a moment. */
export function partAt(parts: { span: { start: number } }[], ms: number): number {
  return Math.max(
    0,
    parts.findLastIndex((p) => p.span.start <= ms),
  )
}

export function useCues(hash: string | undefined) {
  return useQuery({
    queryKey: ['cues', hash],
    queryFn: () => taken(api.GET('/api/captions/{hash}', { params: { path: { hash: hash ?? '' } } })),
    enabled: Boolean(hash),
    staleTime: Number.POSITIVE_INFINITY,
  })
}
