import { settingsOf } from '../outlets/kinds'
import { Copyable } from '../ui/Copyable'
import { Summary } from '../ui/Summary'
import { TextLink } from '../ui/TextLink'
import { PackageRow } from './PackageRow'
import type { Place } from './places'

/** What the trainer hands on of a lesson at a place. */
export function HandOn({ outlet }: { outlet: Place }) {
  const handed = outlet.handsOn
  if (!handed) return null
  return (
    <div className="mt-2 flex flex-col gap-2">
      {handed.link && <Copyable label="Link" text={handed.link} open />}
      {handed.embedCode && (
        <details>
          <Summary className="py-1 text-small">Embed code</Summary>
          <Copyable label="Embed code" text={handed.embedCode} />
          {handed.embedWarning && <p className="text-amber">{handed.embedWarning}</p>}
        </details>
      )}
      {handed.folder && <Copyable label="Folder" text={handed.folder} />}
      {handed.feed && (
        <>
          <Copyable label="Feed" text={handed.feed} />
          {handed.soundFeed && <Copyable label="Feed of sound" text={handed.soundFeed} />}
          {handed.soundPage && <Copyable label="Page of the sound" text={handed.soundPage} />}
          <p>
            People subscribe to this address in a podcast app. <TextLink to={settingsOf(outlet).to}>Feed check, artwork and settings</TextLink>
          </p>
        </>
      )}
      {outlet.release?.package && (
        <PackageRow made={outlet.release.package} what={outlet.packageWord ?? 'package'} sendTo={outlet.takesPackages ? outlet.name : undefined} />
      )}
      {outlet.byHand.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
    </div>
  )
}
