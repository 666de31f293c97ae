import type { Cut } from '../sheet/blocks'
import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { lengthOf } from '../ui/words'

interface Props {
  stretch: Cut
  cut: number
  take: () => void
  giveBack: () => void
  moveIn: () => void
  playback: Playback
  clear: () => void
}

/** What can be done with the selected stretch, next to it. */
export function StretchActions({ stretch, cut, take, giveBack, moveIn, playback, clear }: Props) {
  const kept = stretch.end - stretch.start - cut
  return (
    <>
      {kept > 0 && (
        <Button look="link" onClick={take}>
          Cut {lengthOf(kept)}
        </Button>
      )}
      {cut > 0 && (
        <Button look="link" onClick={giveBack}>
          Restore {lengthOf(cut)}
        </Button>
      )}
      {kept > 0 && (
        <Button look="link" onClick={moveIn}>
          Move in
        </Button>
      )}
      <Button look="link" onClick={() => playback.hear(stretch)}>
        Play it
      </Button>
      {kept > 0 && (
        <Button look="link" onClick={() => playback.hearCut(stretch)}>
          Hear it cut
        </Button>
      )}
      <Button look="link" onClick={clear}>
        Select nothing
      </Button>
    </>
  )
}
