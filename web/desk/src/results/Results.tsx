import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { useLessons } from '../lessons/useLessons'
import { Columns } from '../ui/Columns'
import { Mark } from '../ui/Mark'
import { Page, Waiting } from '../ui/Page'
import { count, day } from '../ui/words'

const refreshMs = 10_000

/** Who watched what, and how much of it. */
export function Results() {
  const lessons = useLessons(refreshMs)
  const watched = lessons.data?.flatMap((c) => c.lessons).filter((l) => l.learners > 0) ?? []
  return (
    <Page title="Results" about="A lesson is complete when 90 % of its length has really been watched.">
      <Waiting query={lessons}>
        {watched.length === 0 && <p>What learners watch stands here. Release a lesson to the channel and hand on its link.</p>}
        {watched.map((l) => (
          <section key={l.id} className="mb-8">
            <h2 className="border-b-2 border-ink pb-1">
              {l.title}{' '}
              <span className="font-normal text-quiet">
                · {l.completed} of {count(l.learners, 'learner')} complete
              </span>
            </h2>
            <Learners id={l.id} />
          </section>
        ))}
      </Waiting>
    </Page>
  )
}

function Learners({ id }: { id: string }) {
  const learners = useQuery({
    queryKey: ['learners', id],
    queryFn: () => taken(api.GET('/api/lessons/{id}/learners', { params: { path: { id } } })),
    refetchInterval: refreshMs,
  })
  return (
    <Waiting query={learners}>
      <table className="w-full table-fixed">
        <Columns widths={['', 'w-1/4', 'w-1/4', 'w-1/4']} />
        <thead className="sr-only">
          <tr>
            <th>Learner</th>
            <th>Seen</th>
            <th>State</th>
            <th>Last there</th>
          </tr>
        </thead>
        <tbody>
          {learners.data?.map((r) => (
            <tr key={`${r.name}${r.seenLastAt}`} className="border-b border-hairline">
              <td className="py-2">{r.name}</td>
              <td className="font-mono">{Math.floor(r.seenShare * 100)} % seen</td>
              <td>{r.completedAt ? <Mark kind="live">Complete</Mark> : <Mark kind="behind">Under way</Mark>}</td>
              <td className="text-quiet">{day(r.seenLastAt)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Waiting>
  )
}
