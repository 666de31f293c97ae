import { api, type Schemas, taken } from '../app/api'
import { settingsOf } from '../outlets/kinds'
import { Copyable } from '../ui/Copyable'
import { TextLink } from '../ui/TextLink'
import { PackageRow } from './PackageRow'

interface Props {
  outlet: Schemas['OutletView']
  release: Schemas['ReleaseView']
  onSent: () => void
}

/** What the trainer hands on after a release. */
export function HandOn({ outlet, release, onSent }: Props) {
  return (
    <div className="mt-2 flex flex-col gap-2">
      {release.link && <Copyable label="Link" text={release.link} open />}
      {release.embedCode && <Copyable label="Embed code" text={release.embedCode} />}
      {release.feed && (
        <>
          <Copyable label="Feed" text={release.feed} />
          <p>
            People subscribe to this address in a podcast app. <TextLink to={settingsOf(outlet).to}>Feed check, artwork and settings</TextLink>
          </p>
        </>
      )}
      {release.embedWarning && <p className="text-amber">{release.embedWarning}</p>}
      {release.package && (
        <PackageRow
          made={release.package}
          what={outlet.packageWord ?? 'package'}
          sendTo={outlet.takesPackages ? outlet.name : undefined}
          send={() => taken(api.POST('/api/releases/{id}/send', { params: { path: { id: release.id } } }))}
          onSent={onSent}
        />
      )}
      {outlet.byHand.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
    </div>
  )
}
