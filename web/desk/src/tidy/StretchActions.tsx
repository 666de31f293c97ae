import { useWork } from '../lessons/work'
import type { Cut } from '../sheet/blocks'
import { Button } from '../ui/Button'
import { lengthOf } from '../ui/words'
import { useTidying } from './tidying'

/** What can be done with the selected stretch, next to it. */
export function StretchActions({ stretch }: { stretch: Cut }) {
  const { playback } = useWork()
  const { cutting, moveIns, setStretch } = useTidying()
  const { cut, take } = cutting
  const kept = stretch.end - stretch.start - cut
  return (
    <>
      {kept > 0 && (
        <Button look="link" onClick={take}>
          Cut {lengthOf(kept)}
        </Button>
      )}
      {cut > 0 && (
        <Button look="link" onClick={() => cutting.giveBack(stretch)}>
          Restore {lengthOf(cut)}
        </Button>
      )}
      {kept > 0 && (
        <Button look="link" onClick={() => moveIns.add(stretch)}>
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
      <Button look="link" onClick={() => setStretch(undefined)}>
        Select nothing
      </Button>
    </>
  )
}
