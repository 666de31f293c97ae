import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import { clock } from '../ui/words'

/** What a cut comes to, before it is made: worked out where the lesson's times are. */
export function Outcome({ lessonId, cuts }: { lessonId: string; cuts: Document['cuts'] }) {
  const { data } = useQuery({
    queryKey: ['cuts-outcome', lessonId, cuts],
    queryFn: () => taken(api.POST('/api/lessons/{id}/cuts/outcome', { params: { path: { id: lessonId } }, body: { cuts } })),
    placeholderData: (before) => before,
  })
  if (!data) return null
  if (data.problem)
    return (
      <p role="alert" className="mt-2 text-brick">
        {data.problem.sentence}
      </p>
    )
  return (
    <p className="mt-2 text-quiet">
      The lesson would be {clock(data.length)} long.
      {data.gone.length > 0 && <span className="text-amber"> With it would go {data.gone.join(', ')}; restoring brings back what went.</span>}
    </p>
  )
}
