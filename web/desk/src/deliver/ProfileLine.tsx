import type { Schemas } from '../app/api'
import { Consequences, Estimate } from '../estimates/Estimate'

interface Props {
  offer: Schemas['ProfileOffer']
  chosen: boolean
  choose: (on: boolean) => void
  /** Whether samples are being encoded for it. */
  sampling: boolean
}

/** One profile with what it would come to for this lesson. */
export function ProfileLine({ offer: p, chosen, choose, sampling }: Props) {
  return (
    <label className="grid cursor-pointer grid-cols-[20px_1fr] border-b border-hairline py-1.5">
      <input type="checkbox" name="profile" value={p.id} checked={chosen} onChange={(e) => choose(e.target.checked)} className="mt-1 h-4 w-4 accent-copper" />
      <span>
        <b>{p.title}</b>{' '}
        <span className="text-[13px] text-quiet">
          {p.container}
          {p.size && ` ${p.size.width} × ${p.size.height}`} · {p.coding}
        </span>
        <Estimate estimate={p.estimate} encoded={p.encodedBytes} />
        {chosen && <Consequences estimate={p.estimate} />}
        {chosen && p.encodedBytes == null && (
          <span className="block text-[13px] text-quiet">
            {p.encodedSince && `The picture is encoded, since ${p.encodedSince}. `}
            {p.soundEncodedSince && `The sound is encoded, since ${p.soundEncodedSince}.`}
          </span>
        )}
        {sampling && (
          <span role="status" className="block text-[13px] text-quiet">
            Encoding a few seconds of this lesson, to know it better…
          </span>
        )}
        {chosen &&
          p.findings.map((f) => (
            <span key={f.code} className={`block ${f.isFault ? 'text-brick' : 'text-amber'}`}>
              {f.sentence}
            </span>
          ))}
      </span>
    </label>
  )
}
