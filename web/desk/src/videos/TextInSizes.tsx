import { useQueries } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import type { Place } from '../deliver/places'
import { useVideoAccounts } from './useVideoAccounts'

interface Props {
  lessonId: string
  revision: number
  profile: string
  place: Place
  /** How high the picture is that goes there: services make nothing larger of it. */
  most: number
}

/** What a video service's own sizes make of the smallest text: it encodes again whatever it gets. */
export function TextInSizes({ lessonId, revision, profile, place, most }: Props) {
  const account = useVideoAccounts(place.id).data?.accounts.find((a) => a.id === place.video?.place?.account)
  const heights = (account?.heights ?? []).filter((h) => h <= most)
  const sizes = useQueries({
    queries: heights.map((height) => ({
      queryKey: ['reel', 'detail', lessonId, profile, revision, height],
      queryFn: () => taken(api.GET('/api/lessons/{id}/detail', { params: { path: { id: lessonId }, query: { profile, height } } })),
      refetchInterval: (query: { state: { data?: { waiting: boolean } } }) => (query.state.data?.waiting ? 3000 : false),
    })),
  })
  const known = sizes.flatMap(({ data }, i) => (data && !data.waiting && data.smallest != null ? [{ height: heights[i], ...data }] : []))
  if (known.length === 0) return null
  const hard = known.filter((k) => (k.smallest ?? 0) < k.easyFrom)
  return (
    <p className={`text-small ${hard.length > 0 ? 'text-amber' : 'text-quiet'}`}>
      {place.name} makes its own sizes: smallest text {known.map((k) => `${k.smallest} pixels high at ${k.height}`).join(', ')}.{' '}
      {hard.length === 0
        ? 'It is easy to read in all of them.'
        : `Under ${known[0]?.easyFrom} it is hard to read; move in there, or tell people to choose the largest.`}
    </p>
  )
}
