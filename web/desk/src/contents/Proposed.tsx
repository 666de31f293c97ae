import { useState } from 'react'
import { Button } from '../ui/Button'
import { count } from '../ui/words'
import type { useProposals } from './useProposals'

/** How many sections are proposed, and taking or leaving all of them. */
export function Proposed({ made }: { made: ReturnType<typeof useProposals> }) {
  const { data, proposals, take, leave, change, tryAgain } = made
  const [amount, setAmount] = useState<number>()
  if (!data) return null
  const { left } = data.proposing
  const settle = () => {
    if (amount !== undefined) change({ amount })
    setAmount(undefined)
  }
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <label className="flex items-center gap-2 text-small">
          few
          <input
            type="range"
            min={0}
            max={1}
            step={0.1}
            aria-label="How many sections are proposed"
            value={amount ?? data.proposing.amount}
            onChange={(e) => setAmount(Number(e.target.value))}
            onPointerUp={settle}
            onKeyUp={settle}
            onBlur={settle}
            className="w-36 accent-ink"
          />
          many
        </label>
        {proposals.length > 0 && (
          <>
            <Button look="link" onClick={() => take(proposals)}>
              Take all
            </Button>
            <Button look="link" onClick={() => leave(proposals)}>
              Leave all
            </Button>
          </>
        )}
      </div>
      {data.waiting && (
        <p role="status" className="mt-1 text-small text-quiet">
          More may be proposed: waiting for {data.waiting}.
        </p>
      )}
      {data.missing.map((sentence) => (
        <p key={sentence} className="mt-1 text-small text-quiet">
          {sentence}{' '}
          {data.canTryAgain && (
            <Button look="link" onClick={tryAgain}>
              Try again
            </Button>
          )}
        </p>
      ))}
      {left.length > 0 && (
        <p className="mt-1 text-small text-quiet">
          {count(left.length, 'proposal')} left.{' '}
          <Button look="link" onClick={() => change({ left: [] })}>
            Offer them again
          </Button>
        </p>
      )}
    </div>
  )
}
