import { useState } from 'react'
import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { clock } from '../ui/words'
import { type Proposal, whyOf } from './proposals'

/** What is played before and behind it, in milliseconds. */
const before = 1500
const behind = 4000

interface Props {
  proposal: Proposal
  playback: Playback
  take: (some: Proposal[]) => void
  leave: (some: Proposal[]) => void
}

/** A section that is proposed, where it would begin; its title can be typed before it is taken. */
export function ProposalBox({ proposal, playback, take, leave }: Props) {
  const [title, setTitle] = useState(proposal.title)
  const at = clock(proposal.at)
  return (
    <div
      data-beside
      data-proposal
      className="ml-[92px] mr-4 mb-1 mt-0.5 flex flex-wrap items-center gap-x-4 gap-y-1 border border-dashed border-amber px-3 py-1"
    >
      <label className="flex min-w-0 flex-1 basis-64 items-baseline gap-2">
        <b className="shrink-0 text-amber">A section here?</b>
        <input
          aria-label={`Title of the section that is proposed at ${at}`}
          value={title}
          maxLength={300}
          placeholder="Title of the section"
          onChange={(e) => setTitle(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && take([{ ...proposal, title }])}
          className="min-w-0 flex-1 bg-transparent px-1 font-bold placeholder:font-normal placeholder:text-amber hover:bg-field focus:bg-field"
        />
      </label>
      <span className="text-small text-quiet">{whyOf(proposal)}</span>
      <span className="flex gap-x-4">
        <Button look="link" aria-label={`Take the section at ${at}`} onClick={() => take([{ ...proposal, title }])}>
          Take
        </Button>
        <Button look="link" aria-label={`Leave the section at ${at}`} onClick={() => leave([proposal])}>
          Leave
        </Button>
        <Button
          look="link"
          aria-label={`Play from ${at}`}
          onClick={() => playback.hear({ start: Math.max(0, proposal.at - before), end: proposal.at + behind })}
        >
          Play it
        </Button>
      </span>
    </div>
  )
}
