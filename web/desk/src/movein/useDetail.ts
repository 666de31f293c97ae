import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type Schemas, taken } from '../app/api'

export type HardStretch = Schemas['HardStretch']

/** The sizes that what is hard to read can be looked at for, by their profile. */
export const sizes = [
  ['web-720p', '720p'],
  ['small-480p', '480p'],
  ['web', 'its own size'],
] as const

const none: HardStretch[] = []

/** What will be hard to read where the lesson is delivered in a size. */
export function useDetail(lessonId: string, recordings: string | undefined, revision: number | undefined, wanted: boolean) {
  const [profile, setProfile] = useState<string>(sizes[0][0])
  const { data } = useQuery({
    queryKey: ['reel', recordings, 'detail', lessonId, profile, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/detail', { params: { path: { id: lessonId }, query: { profile } } })),
    enabled: wanted && recordings !== undefined && revision !== undefined,
    placeholderData: (before) => before,
    // The news that it is found may have come before this page listened.
    refetchInterval: (query) => (query.state.data?.waiting ? 3000 : false),
  })
  return { data, stretches: data?.stretches ?? none, profile, setProfile, at: sizes.find(([id]) => id === profile)?.[1] ?? '' }
}

export type Detail = ReturnType<typeof useDetail>
