import { useState } from 'react'
import { useWork } from '../lessons/work'
import { Edge } from '../sheet/Edge'
import { Button } from '../ui/Button'
import { join, moved } from './cues'
import { letStopWhileTyping, stopsWhileTyping } from './typing'

/** The caption that is being corrected in the sheet: its edges, and what else is done with it as a whole. */
export function OpenedCue() {
  const { text, playback, reel, frameMs } = useWork()
  const [stops, setStops] = useState(stopsWhileTyping)
  const index = text.cues.findIndex((c) => c.id === text.opened?.id)
  if (index < 0) return null
  const [cue, next] = [text.cues[index], text.cues[index + 1]]
  const move = (edge: 'start' | 'end') => (to: number) => {
    const now = moved(cue, edge, to, reel.length)
    text.change({ set: [now], removed: [] })
    playback.seek(now.span[edge])
  }
  return (
    <div className="my-2 border-y border-hairline py-2">
      <div className="flex flex-wrap gap-4">
        <Edge label="This caption begins" at={cue.span.start} frameMs={frameMs} soundEdges={reel.soundEdges} move={move('start')} />
        <Edge label="It ends" at={cue.span.end} frameMs={frameMs} soundEdges={reel.soundEdges} move={move('end')} />
      </div>
      <div className="mt-2 flex flex-wrap gap-x-4 gap-y-2">
        <Button look="link" onClick={() => playback.hear(cue.span)}>
          Play it
        </Button>
        <Button look="link" onClick={() => move('start')(playback.now())}>
          Begin it here
        </Button>
        <Button look="link" onClick={() => move('end')(playback.now())}>
          End it here
        </Button>
        {next && (
          <Button look="link" onClick={() => text.change(join(cue, next))}>
            Join with the next
          </Button>
        )}
        <Button look="link" onClick={() => text.change({ set: [], removed: [cue.id] })}>
          Remove it
        </Button>
      </div>
      <label className="mt-2 flex gap-2 text-small">
        <input
          type="checkbox"
          checked={stops}
          onChange={(e) => {
            letStopWhileTyping(e.target.checked)
            setStops(e.target.checked)
          }}
        />
        Playing stops while you type
      </label>
    </div>
  )
}
