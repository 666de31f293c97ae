import { linkLook } from '../ui/TextLink'
import { count } from '../ui/words'
import { Distribution } from './Distribution'
import { type Among, useSurveyResults } from './useResults'

/** What learners said of the lesson. */
export function SurveyAnswers({ lessonId, among }: { lessonId: string; among: Among }) {
  const survey = useSurveyResults(lessonId, among).data
  if (!survey) return null
  const { title, named, results } = survey
  return (
    <section aria-label="What they said" className="mt-6">
      <h2 className="border-b-2 border-ink pb-1">
        {title || 'What they said'}{' '}
        <span className="font-normal text-quiet">
          · {count(results.replies, 'reply', 'replies')}, {named ? 'with names' : 'anonymous'}
        </span>
      </h2>
      {results.withheld && <p className="mt-2">{results.withheld}</p>}
      <ol>
        {results.items.map((item) => (
          <li key={item.id} className="border-b border-hairline py-2">
            <p>
              <b>{item.text}</b>{' '}
              <span className="text-quiet">
                {item.mean !== null ? `on average ${item.mean.toFixed(1)} of ${item.counts.length}, ` : ''}
                {item.answered} answered
              </span>
            </p>
            {item.counts.length > 0 && <Distribution counts={item.counts} all={item.answered} />}
            {item.comments.length > 0 && (
              <ul className="mt-1 max-w-[640px]">
                {item.comments.map((comment, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: two may say the same
                  <li key={i} className="whitespace-pre-line border-l-2 border-hairline py-0.5 pl-3">
                    {comment}
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ol>
      <p className="mt-1 text-small">
        <a href={`/api/lessons/${lessonId}/survey.csv`} download className={linkLook}>
          All replies as CSV
        </a>
      </p>
    </section>
  )
}
