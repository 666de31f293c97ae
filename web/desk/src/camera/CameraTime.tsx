import type { Schemas } from '../app/api'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { NumberField } from '../ui/NumberField'
import { withClock } from './camera'
import type { Finding } from './useFinding'

/** So far clocks may run apart before it is worth a word, in millionths: two hundredths of a second an hour. */
const toldDrift = 5

/** When a camera starts: found by its sound, or set by hand. */
export function CameraTime({ take, hasSound, finding }: { take: Schemas['CameraTake']; hasSound: boolean; finding: Finding }) {
  const { edit, frameMs } = useWork()
  const { clock, over, recording } = take
  const set = (change: Partial<typeof clock>) => edit((d) => withClock(d, over, { ...clock, ...change }))
  const listening = finding.listening === recording
  const told = finding.of === recording
  return (
    <div className="mt-1">
      <div role="status">
        {listening ? (
          <p>
            Listening to both for where they agree; an hour takes about half a minute.{' '}
            <Button look="link" onClick={finding.stop}>
              Stop
            </Button>
          </p>
        ) : (
          told && finding.found && <p className="text-quiet">{finding.found}</p>
        )}
        {told && finding.problem && <p className="text-amber">{finding.problem}</p>}
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <div className="w-32">
          <NumberField label="It starts at, s" value={clock.starts / 1000} least={-86400} most={86400} take={(s) => set({ starts: Math.round(s * 1000) })} />
        </div>
        <Button look="link" onClick={() => set({ starts: Math.round(clock.starts - frameMs) })}>
          A frame earlier
        </Button>
        <Button look="link" onClick={() => set({ starts: Math.round(clock.starts + frameMs) })}>
          A frame later
        </Button>
      </div>
      <p className="mt-1 flex flex-wrap items-baseline gap-x-4">
        {Math.abs(clock.drift) > toldDrift && (
          <span className="text-quiet">
            Its clock runs {clock.drift > 0 ? 'fast' : 'slow'} by <span className="font-mono">{Math.abs(clock.drift * 0.0036).toFixed(2)} s</span> an hour.
          </span>
        )}
        {hasSound && !listening && (
          <Button look="link" onClick={() => finding.find(over, recording)}>
            Find it by its sound
          </Button>
        )}
        {!hasSound && <span className="text-quiet">It has no sound by which it could be found: set by hand when it starts.</span>}
      </p>
    </div>
  )
}
