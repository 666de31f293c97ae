import { Mark } from '../ui/Mark'
import { about, day } from '../ui/words'
import { isUnderWay, type Place, phaseInWords } from './places'

/** How a lesson stands at a place: what is there, or how far it is on its way. */
export function PlaceState({ place }: { place: Place }) {
  const { way, release } = place
  if (way && isUnderWay(way.phase))
    return (
      <div role="status">
        <p className="flex items-center gap-3">
          {way.progress != null && (
            <span className="inline-block h-1.5 w-28 bg-hairline" aria-hidden="true">
              <span className="block h-full bg-ink" style={{ width: `${Math.round(way.progress * 100)}%` }} />
            </span>
          )}
          {way.progress == null ? <Mark kind="working">{phaseInWords(way)}</Mark> : <span>{phaseInWords(way)}</span>}
          {way.progress != null && <span className="whitespace-nowrap font-mono text-small">{Math.round(way.progress * 100)} %</span>}
          {way.secondsLeft != null && <span className="text-small text-quiet">{about(way.secondsLeft)} left</span>}
        </p>
        {release && !way.takesDown && <p className="text-small text-quiet">What stands there stays until then.</p>}
      </div>
    )
  if (way?.phase === 'failed') return <Mark kind="failed">{phaseInWords(way)}</Mark>
  if (release)
    return (
      <Mark kind={release.behind ? 'behind' : 'live'}>
        <b>{release.behind ? 'Behind' : 'Live'}</b> since {day(release.releasedAt)} · revision {release.revision}
        {release.opensAt && Date.parse(release.opensAt) > Date.now() && <span className="text-amber"> · learners see it from {day(release.opensAt)} on</span>}
      </Mark>
    )
  return <Mark kind="nothing">{way?.phase === 'takenDown' ? `Taken down ${day(way.since)}; its address is kept` : 'Not there'}</Mark>
}
