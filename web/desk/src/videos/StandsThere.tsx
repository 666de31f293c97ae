import { useMutation } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import type { Place } from '../deliver/places'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { day } from '../ui/words'

type Stage = NonNullable<Schemas['VideoStage']>

const words: Record<Stage, string> = {
  uploading: 'Not all of it is there',
  processing: 'There, and cannot be played yet',
  smallSize: 'Plays in a small size',
  ready: 'Plays in all sizes',
  refused: 'Refused',
  gone: 'Removed there',
}

const marks: Record<Stage, 'working' | 'live' | 'failed'> = {
  uploading: 'working',
  processing: 'working',
  smallSize: 'working',
  ready: 'live',
  refused: 'failed',
  gone: 'failed',
}

const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' })

/** How a lesson stands at a video service: what of it plays, since when, and what somebody changed there by hand. */
export function StandsThere({ place, again, changed }: { place: Place; again: () => void; changed: () => void }) {
  const video = place.video
  const release = place.way?.id ?? place.release?.id ?? ''
  const settle = useMutation({
    mutationFn: (take: boolean) => taken(api.POST('/api/releases/{id}/video/found', { params: { path: { id: release } }, body: { take } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const look = useMutation({
    mutationFn: () => taken(api.POST('/api/releases/{id}/video/look', { params: { path: { id: release } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  if (!video?.stage) return null
  const waits = video.stage === 'uploading' || video.stage === 'processing' || video.stage === 'smallSize'
  return (
    <div className="mt-1">
      <p className="flex flex-wrap items-baseline gap-x-4">
        <Mark kind={marks[video.stage]}>{words[video.stage]}</Mark>
        {waits && video.readyAt && <span className="text-small text-quiet">ready at {time.format(new Date(video.readyAt))} at the earliest</span>}
        {place.release && !waits && (
          <Button look="link" className="text-small" onClick={() => look.mutate()} disabled={look.isPending}>
            {look.isPending ? 'Looking…' : 'Look there now'}
          </Button>
        )}
      </p>
      {waits && (
        <p className="text-small text-amber">
          The link is good already, but {video.stage === 'smallSize' ? 'shows a small picture still' : 'leads to a video that does not play yet'}. A mail tells
          when it is ready.
        </p>
      )}
      {video.stage === 'gone' && (
        <p className="text-brick">
          Somebody removed the video at {place.name}; whoever follows its link finds nothing.{' '}
          <Button look="link" onClick={again}>
            Put it there again
          </Button>
        </p>
      )}
      {video.differences.length > 0 && (
        <div className="mt-2 border-l-2 border-amber pl-3">
          <p>Somebody changed this at {place.name} by hand:</p>
          <table className="mt-1 w-full text-small">
            <thead>
              <tr className="text-left text-quiet">
                <th className="pr-3 font-normal">What</th>
                <th className="pr-3 font-normal">As Wexel put it</th>
                <th className="font-normal">As it stands there</th>
              </tr>
            </thead>
            <tbody>
              {video.differences.map((d) => (
                <tr key={d.field} className="border-t border-hairline align-top">
                  <th className="pr-3 text-left font-normal">{d.label}</th>
                  <td className="whitespace-pre-line pr-3">{d.ours || '–'}</td>
                  <td className="whitespace-pre-line">{d.theirs || '–'}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-2 flex gap-4">
            <Button look="link" onClick={() => settle.mutate(true)}>
              Take what stands there
            </Button>
            <Button look="link" onClick={() => settle.mutate(false)}>
              Put back what Wexel says
            </Button>
          </p>
          <p className="text-small text-quiet">Taken, it is said there alone from now on; lines of contents are changed under Mark up.</p>
        </div>
      )}
      {video.differences.length === 0 && place.release && (
        <p className="text-small text-quiet">Nothing was changed there by hand since {day(place.release.releasedAt)}.</p>
      )}
    </div>
  )
}
