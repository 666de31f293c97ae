import { Link } from 'react-router'
import { api, type Schemas, taken } from '../app/api'
import { Copyable } from '../ui/Copyable'
import { PackageRow } from './PackageRow'

interface Props {
  outlet: Schemas['OutletView']
  release: Schemas['ReleaseView']
  onSent: () => void
}

/** What the trainer hands on after a release. */
export function HandOn({ outlet, release, onSent }: Props) {
  const page = release.package?.files.find((f) => f.isThePageToLink)?.path
  return (
    <div className="mt-2 flex flex-col gap-2">
      {release.link && <Copyable label="Link" text={release.link} open />}
      {release.embedCode && <Copyable label="Embed code" text={release.embedCode} />}
      {release.feed && (
        <>
          <Copyable label="Feed" text={release.feed} />
          <p>
            People subscribe to this address in a podcast app.{' '}
            <Link className="text-copper underline underline-offset-2" to={`/kit/feeds/${outlet.id}`}>
              Feed check, artwork and settings
            </Link>
          </p>
        </>
      )}
      {release.embedWarning && <p className="text-amber">{release.embedWarning}</p>}
      {release.package && (
        <PackageRow
          made={release.package}
          what={outlet.kind === 'learningSystem' ? 'package' : 'folder'}
          sendTo={outlet.takesPackages ? outlet.name : undefined}
          send={() => taken(api.POST('/api/releases/{id}/send', { params: { path: { id: release.id } } }))}
          onSent={onSent}
        />
      )}
      {outlet.kind === 'webServer' && (
        <p>
          Unpack it on the web server and link <b className="font-mono text-[13px]">{page}</b>.
        </p>
      )}
      {outlet.kind === 'learningSystem' && <p>In a learning system it is added as a SCORM 1.2 package. The system then records who completed it.</p>}
    </div>
  )
}
