import { Link } from 'react-router'
import { linkLook } from '../ui/TextLink'
import { clock, count } from '../ui/words'
import { discrimination, inBrief, type LessonResults, type QuestionResult } from './useResults'

/** What each question did: how many were right at first, what was taken instead, and whether it tells people apart. */
export function QuestionResults({ lessonId, title, results }: { lessonId: string; title: string; results: LessonResults }) {
  if (results.questions.length === 0) return null
  return (
    <section aria-label={`Questions of “${title}”`} className="mt-3">
      <h3 className="font-bold">
        Questions{' '}
        <span className="font-normal text-quiet">
          · {count(results.whole, 'learner')} answered all
          {results.alpha !== null && `, reliability ${results.alpha.toFixed(2)}`}
        </span>
      </h3>
      <ol>
        {results.questions.map((q) => (
          <li key={q.id} className="border-b border-hairline py-2">
            <Row question={q} lessonId={lessonId} />
          </li>
        ))}
      </ol>
    </section>
  )
}

function Row({ question, lessonId }: { question: QuestionResult; lessonId: string }) {
  const { statistics, answers, others } = question
  const all = answers.reduce((sum, a) => sum + a.count, others)
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <Link to={`/lessons/${lessonId}/mark-up?at=${question.at}`} className={`${linkLook} font-mono text-small`}>
          {clock(question.at)}
        </Link>
        <b className="min-w-0 break-words">{question.text || question.kind}</b>
        <span className="text-quiet">{question.kind}</span>
      </p>
      {statistics.answers === 0 ? (
        <p className="text-quiet">Nobody has answered it yet.</p>
      ) : (
        <>
          <p>
            {question.missedByMost ? <b className="text-amber">Most missed this: {inBrief(question)}</b> : inBrief(question)}
            <span className="text-quiet">
              {' '}
              · against the rest {discrimination(statistics.pointBiserial)} · upper and lower 27 % {discrimination(statistics.upperLower)}
            </span>
          </p>
          <ul className="mt-1 max-w-[640px]">
            {answers.map((answer) => (
              <li key={answer.words} className="grid grid-cols-[minmax(0,1fr)_120px_64px] items-center gap-x-3">
                <span className={`truncate ${answer.right ? 'font-bold text-lagoon' : ''}`} title={answer.words}>
                  {answer.words}
                  {answer.right && ' ✓'}
                </span>
                <span aria-hidden="true" className="h-2 bg-hairline">
                  <span className={`block h-2 ${answer.right ? 'bg-lagoon' : 'bg-quiet'}`} style={{ width: `${(100 * answer.count) / all}%` }} />
                </span>
                <span className="text-right font-mono text-small">{answer.count}</span>
              </li>
            ))}
            {others > 0 && <li className="text-small text-quiet">{count(others, 'other answer')}</li>}
          </ul>
        </>
      )}
    </>
  )
}
