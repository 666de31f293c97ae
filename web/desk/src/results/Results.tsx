import { useLessons } from '../lessons/useLessons'
import { Columns } from '../ui/Columns'
import { Mark } from '../ui/Mark'
import { Page, Waiting } from '../ui/Page'
import { linkLook } from '../ui/TextLink'
import { count, day } from '../ui/words'
import { QuestionResults } from './QuestionResults'
import { type LessonResults, useResults } from './useResults'

const refreshMs = 10_000

/** Who watched what, and how much of it. */
export function Results() {
  const lessons = useLessons(refreshMs)
  const watched = lessons.data?.flatMap((c) => c.lessons).filter((l) => l.learners > 0) ?? []
  return (
    <Page title="Results" about="A lesson is complete when what it asks for is done: 90 % of its length really watched, or the points that pass.">
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
            <Came id={l.id} title={l.title} />
          </section>
        ))}
      </Waiting>
    </Page>
  )
}

function Came({ id, title }: { id: string; title: string }) {
  const results = useResults(id, refreshMs)
  return (
    <Waiting query={results}>
      {results.data && (
        <>
          <Learners results={results.data} />
          <p className="mt-1 text-small">
            {results.data.all > results.data.learners.length && (
              <span className="mr-3 text-quiet">
                The last {results.data.learners.length} of {results.data.all}.
              </span>
            )}
            <a href={`/api/lessons/${id}/results.csv`} download className={linkLook}>
              All of it as CSV
            </a>
          </p>
          <QuestionResults lessonId={id} title={title} results={results.data} />
        </>
      )}
    </Waiting>
  )
}

function Learners({ results }: { results: LessonResults }) {
  const asks = results.questions.length > 0
  return (
    <table className="w-full table-fixed">
      <Columns widths={asks ? ['', 'w-1/5', 'w-1/5', 'w-1/5', 'w-1/5'] : ['', 'w-1/4', 'w-1/4', 'w-1/4']} />
      <thead className="sr-only">
        <tr>
          <th>Learner</th>
          <th>Seen</th>
          {asks && <th>Points</th>}
          <th>State</th>
          <th>Last there</th>
        </tr>
      </thead>
      <tbody>
        {results.learners.map((r) => (
          <tr key={`${r.name}${r.seenLastAt}`} className="border-b border-hairline">
            <td className="py-2">{r.name}</td>
            <td className="font-mono">{Math.floor(r.seenShare * 100)} % seen</td>
            {asks && <td className="font-mono">{r.score.max > 0 ? `${Number(r.score.raw.toFixed(2))} of ${r.score.max}` : `${r.answered} answered`}</td>}
            <td>
              {r.passed === false ? (
                <Mark kind="failed">Not passed</Mark>
              ) : r.completedAt ? (
                <Mark kind="live">{r.passed ? 'Passed' : 'Complete'}</Mark>
              ) : (
                <Mark kind="behind">Under way</Mark>
              )}
            </td>
            <td className="text-quiet">{day(r.seenLastAt)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
