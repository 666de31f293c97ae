import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { clock, count } from '../ui/words'
import { type Detail, type HardStretch, sizes } from './useDetail'
import type { ActingOnDetail } from './useMoveIns'

export const px = (height: number) => `${height.toFixed(1)} px`

/** What will be hard to read where the lesson is delivered, from the worst, with the move-in that would help. */
export function HardToRead({ detail, acting, playback }: { detail: Detail; acting: ActingOnDetail; playback: Playback }) {
  const { data, stretches, profile, setProfile, at } = detail
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Hard to read">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2>
          Hard to read{' '}
          <span className="font-normal text-quiet">
            · {!data || data.waiting ? 'not looked at yet' : stretches.length === 0 ? 'nothing' : count(stretches.length, 'stretch', 'stretches')}
          </span>
        </h2>
        <label className="flex items-center gap-2 text-quiet">
          delivered in
          <select value={profile} onChange={(e) => setProfile(e.target.value)} className="border border-quiet/60 bg-field px-2 py-0.5 text-ink">
            {sizes.map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
      </div>
      {data?.waiting && (
        <p role="status" className="mt-1 text-quiet">
          The pictures are being looked at in full size; what is hard to read comes by itself.
        </p>
      )}
      {data && !data.waiting && (
        <p className="mt-1 text-quiet">
          {stretches.length === 0
            ? `In ${at}, small letters are ${data.easyFrom} px or higher all through.`
            : `Small letters under ${data.easyFrom} px are hard to read; the picture above shows where.`}
        </p>
      )}
      <ul className="mt-1 max-h-[280px] overflow-y-auto">
        {stretches.map((s) => (
          <li key={s.span.start} className="flex items-baseline gap-3 py-0.5">
            <button type="button" className="font-mono text-small hover:text-copper" onClick={() => playback.seek(s.span.start)}>
              {clock(s.span.start)}
            </button>
            <span className="min-w-0 flex-1">
              smallest text <b className="font-mono">{px(s.smallest)}</b> <span className="text-quiet">· {count(s.lines.length, 'line')}</span>
            </span>
            <Propose stretch={s} acting={acting} />
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Takes the proposed move-in, or says why there is none. */
export function Propose({ stretch, acting }: { stretch: HardStretch; acting: ActingOnDetail }) {
  const proposal = stretch.proposal
  if (!proposal) return <span className="text-quiet">too short to move in</span>
  return (
    <Button
      look="link"
      title={`Small letters become ${px(proposal.smallest)}${proposal.wholeFactor ? ', pixel for pixel' : ''}`}
      onClick={() => acting.take(proposal)}
    >
      Move in ×{proposal.factor.toFixed(1)}
      {proposal.wholeFactor ? ', crisp' : ''}
    </Button>
  )
}
