import { useId } from 'react'
import type { Schemas } from '../app/api'
import { Consequences, Estimate, TooMuch } from '../estimates/Estimate'

interface Props {
  offer: Schemas['ProfileOffer']
  chosen: boolean
  choose: (on: boolean) => void
  /** Whether samples are being encoded for it. */
  sampling: boolean
}

/** One profile with what it would come to for this lesson. */
export function ProfileLine({ offer: p, chosen, choose, sampling }: Props) {
  const id = useId()
  return (
    <div data-testid={`profile-${p.id}`} className="grid grid-cols-[20px_1fr] border-b border-hairline py-1.5">
      <input
        id={id}
        type="checkbox"
        name="profile"
        value={p.id}
        checked={chosen}
        onChange={(e) => choose(e.target.checked)}
        className="mt-1 h-4 w-4 accent-copper"
      />
      <div>
        <label htmlFor={id} className="block cursor-pointer">
          <b>{p.title}</b>{' '}
          <span className="text-small text-quiet">
            {p.container}
            {p.size && ` ${p.size.width} × ${p.size.height}`} · {p.coding}
          </span>
        </label>
        <Estimate estimate={p.estimate} encoded={p.encodedBytes} />
        {chosen && <TooMuch estimate={p.estimate} />}
        {sampling && (
          <span role="status" className="block text-small text-quiet">
            Encoding a few seconds of this lesson, to know it better…
          </span>
        )}
        {chosen &&
          p.findings.map((f) => (
            <span key={f.code} className={`block ${f.isFault ? 'text-brick' : 'text-amber'}`}>
              {f.sentence}
            </span>
          ))}
        {chosen && (
          <details className="text-small text-quiet">
            <summary className="cursor-pointer">How sure that is, and what follows</summary>
            <Consequences estimate={p.estimate} encoded={p.encodedBytes} />
            {p.encodedBytes == null && p.encodedSince && <p>The picture is encoded, since {p.encodedSince}.</p>}
            {p.encodedBytes == null && p.soundEncodedSince && <p>The sound is encoded, since {p.soundEncodedSince}.</p>}
          </details>
        )}
      </div>
    </div>
  )
}
