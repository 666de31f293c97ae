import { useQueries, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { api, type Schemas, taken } from '../app/api'

type Offer = Schemas['ProfileOffer']

/** Has samples of the lesson encoded for the profiles that are chosen; leaving the page stops it. Says which are worked on. */
export function useSampling(lessonId: string, picked: readonly Offer[]): ReadonlySet<string> {
  const client = useQueryClient()
  const missing = picked.filter((p) => !p.estimate.sampled && !p.nothingToEncode && !p.findings.some((f) => f.isFault))
  const asked = useQueries({
    queries: missing.map((p) => ({
      queryKey: ['estimate', lessonId, p.id, p.estimate.bytes],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        taken(api.POST('/api/lessons/{id}/estimates/{profileId}', { params: { path: { id: lessonId, profileId: p.id } }, signal })),
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
    })),
  })
  const done = Math.max(0, ...asked.map((a) => a.dataUpdatedAt))
  useEffect(() => {
    if (done > 0) client.invalidateQueries({ queryKey: ['deliver', lessonId] })
  }, [done, client, lessonId])
  return new Set(missing.filter((_, i) => asked[i]?.isFetching).map((p) => p.id))
}
