import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, type Schemas, taken } from '../app/api'
import { linkLook } from '../ui/TextLink'
import { count, lengthOf } from '../ui/words'

type One = Schemas['VideoFigures']

/** What video services say of how often lessons were watched there: of one lesson day by day, of all in a list. */
export function Figures({ lessonId }: { lessonId?: string }) {
  const figures = useQuery({
    queryKey: ['video-figures', lessonId],
    queryFn: () => taken(api.GET('/api/video-figures', { params: { query: { lesson: lessonId } } })),
    refetchInterval: 60_000,
  }).data
  if (!figures || figures.length === 0) return null
  return (
    <section aria-label="At video services" className="my-6">
      <h2 className="border-b-2 border-ink pb-1">At video services</h2>
      <p className="py-1 text-small text-quiet">As the services say it, of nobody in particular; asked four times an hour.</p>
      <ul>
        {figures.map((one) => (
          <li key={`${one.lessonId} ${one.outlet}`} className="flex flex-wrap items-end gap-x-6 gap-y-1 border-b border-hairline py-2">
            <p className="min-w-64">
              {lessonId ? (
                <b>{one.outlet}</b>
              ) : (
                <>
                  <Link to={`/results/${one.lessonId}`} className={linkLook}>
                    {one.title}
                  </Link>{' '}
                  <span className="text-quiet">at {one.outlet}</span>
                </>
              )}
            </p>
            <p>
              <span className="font-mono">{count(one.views, 'view')}</span>
              <span className="text-quiet"> · {lengthOf(one.watched)} watched</span>
            </p>
            <Days one={one} />
          </li>
        ))}
      </ul>
    </section>
  )
}

/** A bar a day, the last thirty that are known. */
function Days({ one }: { one: One }) {
  const days = one.days.slice(-30)
  const most = Math.max(...days.map((d) => d.views), 1)
  const words = days.map((d) => `${d.day}: ${count(d.views, 'view')}`).join(', ')
  return (
    <div role="img" aria-label={words} className="flex h-8 items-end gap-px">
      {days.map((d) => (
        <span
          key={d.day}
          title={`${d.day}: ${count(d.views, 'view')}, ${lengthOf(d.watched)}`}
          className="block w-2 bg-lagoon"
          style={{ height: `${(100 * d.views) / most}%` }}
        />
      ))}
    </div>
  )
}
