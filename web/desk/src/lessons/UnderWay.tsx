import type { Schemas } from '../app/api'
import { useQueue } from '../queue/useQueue'
import { TextLink } from '../ui/TextLink'
import { count, lengthOf } from '../ui/words'

/** What is still being made, and how long that takes; nothing where all is done. */
export function UnderWay({ courses }: { courses: Schemas['CourseView'][] }) {
  const queue = useQueue()
  const looking = courses.flatMap((c) => c.lessons).filter((l) => l.stage === 'being looked through').length
  const rendering = queue.data?.filter((r) => r.state === 'waiting' || r.state === 'working') ?? []
  if (looking === 0 && rendering.length === 0) return null
  const left = rendering.reduce((sum, r) => sum + (r.secondsLeft != null ? r.secondsLeft * 1000 : r.estimatedTime), 0)
  return (
    <p role="status" className="mb-4">
      {looking > 0 && `${count(looking, 'recording')} ${looking === 1 ? 'is' : 'are'} being looked through. `}
      {rendering.length > 0 && (
        <>
          {count(rendering.length, 'file')} {rendering.length === 1 ? 'is' : 'are'} being rendered, about {lengthOf(left)} left:{' '}
          <TextLink to="/queue">the queue</TextLink>.
        </>
      )}
    </p>
  )
}
