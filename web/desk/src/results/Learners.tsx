import { Columns } from '../ui/Columns'
import { Mark } from '../ui/Mark'
import { linkLook } from '../ui/TextLink'
import { count, day } from '../ui/words'
import type { LessonResults } from './useResults'

/** Who took a lesson, how far they are, and with how many points and tries. */
export function Learners({ results, file }: { results: LessonResults; file: string }) {
  const asks = results.questions.length > 0
  return (
    <section aria-label="Learners" className="mt-6">
      <h2 className="border-b-2 border-ink pb-1">
        Learners <span className="font-normal text-quiet">· whoever was there last first</span>
      </h2>
      <table className="w-full table-fixed">
        <Columns widths={asks ? ['', 'w-1/6', 'w-1/4', 'w-1/6', 'w-1/6'] : ['', 'w-1/4', 'w-1/4', 'w-1/4']} />
        <thead className="sr-only">
          <tr>
            <th>Learner</th>
            <th>Seen</th>
            {asks && <th>Points and tries</th>}
            <th>State</th>
            <th>Last there</th>
          </tr>
        </thead>
        <tbody>
          {results.learners.map((r) => (
            <tr key={`${r.name}${r.seenLastAt}`} className="border-b border-hairline">
              <td className="truncate py-2 pr-3">{r.name}</td>
              <td className="font-mono">{Math.floor(r.seenShare * 100)} % seen</td>
              {asks && (
                <td>
                  <span className="font-mono">{r.score.max > 0 ? `${Number(r.score.raw.toFixed(2))} of ${r.score.max}` : `${r.answered} answered`}</span>
                  {r.tries > 0 && <span className="ml-3 text-quiet">{count(r.tries, 'try', 'tries')}</span>}
                </td>
              )}
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
      <p className="mt-1 text-small">
        {results.all > results.learners.length && (
          <span className="mr-3 text-quiet">
            The last {results.learners.length} of {results.all}.
          </span>
        )}
        <a href={file} download className={linkLook}>
          All of them as CSV
        </a>
      </p>
    </section>
  )
}
