import type { Schemas } from '../app/api'
import { about, size } from '../ui/words'

interface Props {
  offer: Schemas['ProfileOffer']
  chosen: boolean
  choose: (on: boolean) => void
}

/** One profile with what it would come to for this lesson. */
export function ProfileLine({ offer: p, chosen, choose }: Props) {
  return (
    <label className="grid cursor-pointer grid-cols-[20px_1fr] border-b border-hairline py-1.5">
      <input type="checkbox" name="profile" value={p.id} checked={chosen} onChange={(e) => choose(e.target.checked)} className="mt-1 h-4 w-4 accent-copper" />
      <span>
        <b>{p.title}</b>{' '}
        <span className="text-[13px] text-quiet">
          {p.container}
          {p.size && ` ${p.size.width} × ${p.size.height}`} · {p.coding}
        </span>
        <span className="block">
          about {size(p.estimatedBytes)}, {p.nothingToEncode ? 'encoded already' : `${about(p.estimatedTime / 1000)} on this machine`}
        </span>
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
