import { Link } from 'react-router'
import { Columns } from '../ui/Columns'
import { Page, Waiting } from '../ui/Page'
import { linkLook } from '../ui/TextLink'
import { count, day } from '../ui/words'
import { Figures } from '../videos/Figures'
import { perCent, useOutcomes } from './useResults'

const refreshMs = 10_000
const widths = ['', 'w-[12%]', 'w-[16%]', 'w-[12%]', 'w-[12%]', 'w-[12%]', 'w-[12%]']

/** What came of all lessons, course by course. */
export function Results() {
  const outcomes = useOutcomes(refreshMs)
  return (
    <Page title="Results" about="A lesson is complete when what it asks for is done: 90 % of its length really watched, or the points that pass.">
      <Waiting query={outcomes}>
        {outcomes.data?.length === 0 && <p>What learners watch stands here. Release a lesson to the channel and hand on its link.</p>}
        {outcomes.data?.map((course) => (
          <section key={course.id} className="mb-8" aria-label={course.title}>
            <h2 className="border-b-2 border-ink pb-1">
              {course.title}{' '}
              <span className="font-normal text-quiet">
                · {count(course.learners, 'learner')}, {course.whole} completed all of it
              </span>
            </h2>
            <table className="w-full table-fixed">
              <Columns widths={widths} />
              <thead className="text-left text-small text-quiet">
                <tr>
                  {['Lesson', 'Learners', 'Complete', 'Seen', 'Points', 'Replies', 'Last there'].map((name) => (
                    <th key={name} className="py-1 font-normal">
                      {name}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {course.lessons.map((l) => (
                  <tr key={l.id} className="border-b border-hairline">
                    <td className="truncate py-2 pr-3">
                      <img
                        src={`/api/lessons/${l.id}/picture.jpg?small=true`}
                        alt=""
                        loading="lazy"
                        className="mr-3 inline-block h-9 w-16 border border-hairline object-cover align-middle"
                      />
                      <Link to={`/results/${l.id}`} className={linkLook}>
                        {l.title}
                      </Link>
                    </td>
                    <td className="font-mono">{l.learners}</td>
                    <td>
                      <span className="font-mono">
                        {l.completed} of {l.learners}
                      </span>
                      <span aria-hidden="true" className="mt-0.5 block h-1 w-3/4 bg-hairline">
                        <span className="block h-1 bg-lagoon" style={{ width: `${(100 * l.completed) / l.learners}%` }} />
                      </span>
                    </td>
                    <td className="font-mono">{perCent(l.seenShare)}</td>
                    <td className="font-mono">{l.score === null ? '–' : perCent(l.score)}</td>
                    <td className="font-mono">{l.replies === 0 ? '–' : l.replies}</td>
                    <td className="text-quiet">{day(l.seenLastAt)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
      </Waiting>
      <Figures />
    </Page>
  )
}
