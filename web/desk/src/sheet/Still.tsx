import { useEffect, useRef } from 'react'
import { partAt } from '../lessons/useLessons'
import { useWork } from '../lessons/work'

/** The picture at a moment of the reel in the recording's own size; the small one of the sheet until that is there. */
export function Still({ at, className }: { at: number; className: string }) {
  const { reel } = useWork()
  const video = useRef<HTMLVideoElement>(null)
  const part = reel.parts[partAt(reel.parts, at)]
  const seconds = (at - part.span.start) / 1000
  // A millisecond into the frame, so that rounding shows no other.
  const frame = Math.floor(((at - part.span.start + 1) * part.grid.numerator) / (1000 * part.grid.denominator))
  useEffect(() => {
    if (video.current) video.current.currentTime = seconds + 0.001
  }, [seconds])
  return (
    <video
      key={part.hash}
      ref={video}
      muted
      preload="auto"
      tabIndex={-1}
      aria-hidden="true"
      className={`${className} object-fill`}
      poster={`/api/recordings/${part.hash}/frames/${frame}.jpg`}
      src={part.viewable ? `/api/recordings/${part.hash}/view#t=${seconds + 0.001}` : undefined}
    />
  )
}

/** How wide and high that picture is. */
export function useSizeAt(at: number) {
  const { reel } = useWork()
  return reel.parts[partAt(reel.parts, at)].facts.picture?.shownSize ?? { width: 16, height: 9 }
}
