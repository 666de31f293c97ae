import type { Schemas } from '../app/api'
import { Mark } from '../ui/Mark'
import { Summary } from '../ui/Summary'
import { TextLink } from '../ui/TextLink'
import { day, size } from '../ui/words'

interface Props {
  made: Schemas['PackageView']
  what: string
  /** The outlet's name, where things are put there from here. */
  sendTo?: string
  /** Whether it leads to where it stands there, which is not handed on elsewhere on the page. */
  opens?: boolean
}

/** A package that was made: to download, to look into, and how it was sent. */
export function PackageRow({ made, what, sendTo, opens }: Props) {
  const { sent } = made
  return (
    <div className="flex flex-col gap-1">
      <TextLink href={made.link} download>
        Download the {what} as a ZIP, {size(made.bytes)}
      </TextLink>
      {sendTo && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          {sent && (
            <Mark kind={sent.behind ? 'behind' : 'live'}>
              {sent.behind ? `${sendTo} has an older package` : `Sent to ${sendTo}`}, {day(sent.at)}
            </Mark>
          )}
          {sent?.to && opens && (
            <TextLink href={sent.to} out>
              Open it there
            </TextLink>
          )}
        </p>
      )}
      <details>
        <Summary>What is in it</Summary>
        <ul className="mt-1">
          {made.files.map((f) => (
            <li key={f.path} className="py-0.5">
              <span className={`font-mono text-small ${f.isThePageToLink ? 'font-bold' : ''}`}>{f.path}</span>{' '}
              <span className="text-quiet">
                {size(f.bytes)}. {f.purpose}
              </span>
            </li>
          ))}
        </ul>
      </details>
    </div>
  )
}
