import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { TextLink } from '../ui/TextLink'
import { clock } from '../ui/words'

interface Props {
  lessonId: string
  revision: number
  profile: string
}

/** How high the smallest letters are at the size that a profile delivers, and where the worst of them stand. */
export function SmallestText({ lessonId, revision, profile }: Props) {
  const { data } = useQuery({
    queryKey: ['reel', 'detail', lessonId, profile, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/detail', { params: { path: { id: lessonId }, query: { profile } } })),
    refetchInterval: (query) => (query.state.data?.waiting ? 3000 : false),
  })
  if (!data) return null
  if (data.waiting) return <p className="text-small text-quiet">Looking for the smallest text…</p>
  const [worst] = data.stretches
  if (data.smallest == null) return null
  return worst ? (
    <p className="text-small text-amber">
      Smallest text {data.smallest} pixels high, under the {data.easyFrom} that are easy to read;{' '}
      <TextLink to={`/lessons/${lessonId}/tidy?at=${worst.span.start}`}>move in at {clock(worst.span.start)}</TextLink>.
    </p>
  ) : (
    <p className="text-small text-quiet">Smallest text {data.smallest} pixels high, easy to read.</p>
  )
}
