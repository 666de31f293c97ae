import { useWork } from '../lessons/work'
import { Edge } from '../sheet/Edge'
import { spanOf } from '../sheet/placed'
import { Button } from '../ui/Button'
import type { Area } from './overlays'

/** From when to when something is there. */
export function Stretch({ span, set }: { span: Area['span']; set: (span: Area['span']) => void }) {
  const { reel, frameMs, playback } = useWork()
  return (
    <div className="flex flex-wrap items-start gap-x-4">
      <Edge label="There from" at={span.start} frameMs={frameMs} soundEdges={[]} move={(to) => set(spanOf(to, span.end, reel.length))} />
      <Edge label="Until" at={span.end} frameMs={frameMs} soundEdges={[]} move={(to) => set(spanOf(span.start, to, reel.length))} />
      <p className="flex gap-4 pt-7 [&>button]:min-h-6">
        <Button look="link" onClick={() => set(spanOf(span.start, playback.now(), reel.length))}>
          Until the playing position
        </Button>
        <Button look="link" onClick={() => playback.hear({ start: Math.max(0, span.start - 1000), end: span.end + 1000 })}>
          Play it
        </Button>
      </p>
    </div>
  )
}
