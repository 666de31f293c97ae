import { useState } from 'react'
import { Button } from '../ui/Button'
import { localOf, momentOf } from './moments'

interface Props {
  place: string
  opensAt: string | null
  endsAt: string | null
  take: (times: { opensAt?: string | null; endsAt?: string | null }) => void
}

/** From when a lesson may be seen at a place, and until when: at once and for good, unless somebody says otherwise. */
export function OpenTimes({ place, opensAt, endsAt, take }: Props) {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  return (
    <div className="mt-1 text-small">
      <Moment label={`From when it may be seen on ${place}`} at={opensAt} usual="At once" otherwise="Open it later" take={(at) => take({ opensAt: at })} />
      <Moment label={`Until when it may be seen on ${place}`} at={endsAt} usual="For good" otherwise="End it some day" take={(at) => take({ endsAt: at })} />
      {(opensAt || endsAt) && <p className="text-quiet">Times of {zone.replaceAll('_', ' ')}.</p>}
    </div>
  )
}

interface MomentProps {
  label: string
  at: string | null
  usual: string
  otherwise: string
  take: (at: string | null) => void
}

function Moment({ label, at, usual, otherwise, take }: MomentProps) {
  const [asked, ask] = useState(false)
  if (!at && !asked)
    return (
      <p>
        <span className="text-quiet">{usual}.</span>{' '}
        <Button look="link" className="text-small" onClick={() => ask(true)}>
          {otherwise}
        </Button>
      </p>
    )
  return (
    <p>
      <input
        type="datetime-local"
        aria-label={label}
        className="w-full border border-quiet/60 bg-field px-1 py-0.5"
        value={at ? localOf(at) : ''}
        onChange={(e) => take(momentOf(e.target.value))}
      />
      <Button
        look="link"
        className="text-small"
        onClick={() => {
          ask(false)
          if (at) take(null)
        }}
      >
        {usual}
      </Button>
    </p>
  )
}
