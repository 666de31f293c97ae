import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import { clock, count } from '../ui/words'

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
  const gone = [
    ...data.sectionsGone.map((title) => `the section “${title}”`),
    ...(data.captionsGone > 0 ? [count(data.captionsGone, 'caption')] : []),
    ...(data.moveInsGone > 0 ? [count(data.moveInsGone, 'move-in')] : []),
  ]
  return (
    <p className="mt-2 text-quiet">
      The lesson would be {clock(data.length)} long.{gone.length > 0 && <span className="text-amber"> With it would go {gone.join(', ')}; restoring brings back what went.</span>}
    </p>
  )
}
