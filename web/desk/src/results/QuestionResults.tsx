import { Link } from 'react-router'
import { linkLook } from '../ui/TextLink'
import { clock, count } from '../ui/words'
import { Distribution } from './Distribution'
import { Rescore } from './Rescore'
import { discrimination, inBrief, type LessonResults, type QuestionResult } from './useResults'

/** What each question did: how many were right at first, what was taken instead, and whether it tells people apart. */
export function QuestionResults({ lessonId, title, results }: { lessonId: string; title: string; results: LessonResults }) {
  if (results.questions.length === 0) return null
  return (
    <section aria-label={`Questions of “${title}”`} className="mt-6">
      <h2 className="border-b-2 border-ink pb-1">
        Questions{' '}
        <span className="font-normal text-quiet">
          · {count(results.whole, 'learner')} answered all
          {results.alpha !== null && `, reliability ${results.alpha.toFixed(2)}`}
        </span>
      </h2>
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
          <Distribution counts={answers} all={all} />
          {others > 0 && <p className="text-small text-quiet">{count(others, 'other answer')}</p>}
          <p className="mt-1 [&>button]:min-h-6">
            <Rescore lessonId={lessonId} question={question.id} />
          </p>
        </>
      )}
    </>
  )
}
