import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { TextLink } from '../ui/TextLink'
import { day } from '../ui/words'

interface Props {
  feed: Schemas['FeedView']
  submit: (to: Schemas['DirectoryView']) => void
  submitting: boolean
}

/** How a feed stands at directories: submitted, accepted or refused, with the dates. */
export function Directories({ feed, submit, submitting }: Props) {
  if (feed.directories.length === 0) return null
  const wrong = feed.findings.filter((f) => f.weight === 'wrong').length
  const kept = feed.settings.private
    ? 'A private feed has no address that could be submitted.'
    : feed.settings.unlisted
      ? 'It is unlisted: directories are asked to keep it out. Change that in the settings to submit it.'
      : wrong > 0
        ? 'The feed check names what directories would refuse; mend that first.'
        : undefined
  return (
    <section>
      <h2>Directories</h2>
      <ul className="border-t border-hairline">
        {feed.directories.map((d) => (
          <li key={`${d.code} ${d.isSound}`} className="flex flex-col gap-1 border-b border-hairline py-2">
            <p className="flex flex-wrap items-baseline gap-x-4">
              <b>{d.name}</b>
              {feed.soundAddress && <span>{d.isSound ? 'the feed of sound' : 'the feed'}</span>}
              {!d.submittedAt && <Mark kind="nothing">not submitted</Mark>}
              {d.submittedAt && !d.answeredAt && <Mark kind="working">submitted {day(d.submittedAt)}</Mark>}
              {d.page && d.answeredAt && <Mark kind="live">accepted {day(d.answeredAt)}</Mark>}
              {d.answeredAt && !d.page && <Mark kind="failed">refused {day(d.answeredAt)}</Mark>}
              {!kept && (!d.submittedAt || (d.answeredAt && !d.page)) && (
                <Button look="link" onClick={() => submit(d)} disabled={submitting}>
                  {d.submittedAt ? 'Submit it again' : 'Submit it'}
                </Button>
              )}
            </p>
            {d.submittedAt && !d.answeredAt && (
              <p className="text-small text-quiet">It answers within {d.takes}, and writes to the feed’s owner at once and when it has looked.</p>
            )}
            {d.page && (
              <p>
                <TextLink href={d.page} out>
                  Its page there
                </TextLink>{' '}
                <span className="text-quiet">is what is handed on from now on.</span>
              </p>
            )}
            {d.reasons.length > 0 && (
              <ul className="list-disc pl-5 text-amber">
                {d.reasons.map((reason) => (
                  <li key={reason}>{reason}</li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ul>
      {kept && <p className="mt-1 text-quiet">{kept}</p>}
    </section>
  )
}
