import { useState } from 'react'
import { Button } from '../ui/Button'
import { localOf, momentOf } from './moments'

/** From when a lesson may be seen at a place: at once, unless somebody says otherwise. */
export function OpensAt({ place, at, take }: { place: string; at: string | null; take: (at: string | null) => void }) {
  const [asked, ask] = useState(false)
  if (!at && !asked)
    return (
      <p className="mt-1 text-small">
        <span className="text-quiet">At once.</span>{' '}
        <Button look="link" className="text-small" onClick={() => ask(true)}>
          Open it later
        </Button>
      </p>
    )
  return (
    <p className="mt-1 text-small">
      <input
        type="datetime-local"
        aria-label={`From when it may be seen on ${place}`}
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
        At once
      </Button>
    </p>
  )
}
