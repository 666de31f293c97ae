import { type CSSProperties, useEffect, useRef } from 'react'
import type { Schemas } from '../app/api'
import { CameraOnPicture } from '../camera/CameraOnPicture'
import { useHouse, useMarkStyle } from '../kit/useMark'
import { useWork } from '../lessons/work'
import { DetailOverlay } from '../movein/DetailOverlay'
import type { HardStretch } from '../movein/useDetail'
import { useMovingPicture } from '../movein/useMovingPicture'
import type { ViewPath } from '../movein/viewPath'
import { AreasOnPicture, NotesOnPicture } from '../overlays/OnPicture'
import { framesOf, useCanvasOutcome } from '../tidy/CanvasPanel'
import { Button } from '../ui/Button'
import { exactClock } from '../ui/words'
import { usePlayingTime } from './usePlayback'

interface Props {
  /** How what is seen moves; without it, all of the page is seen. */
  path: ViewPath | undefined
  /** Where something is hard to read. */
  hard: HardStretch[]
}

/** The picture that is playing as learners will see it: on its canvas, with the house's mark and its captions. */
export function Viewer({ path, hard }: Props) {
  const { reel, cues, playback, document } = useWork()
  const house = useHouse().data
  const placed = useCanvasOutcome(reel, playback.part, document.canvas, framesOf(document))
  const recording = reel.parts[playback.part] ?? reel.parts[0]
  const markStyle = useMarkStyle(document.houseMark ? house?.placement : null, placed?.canvas)
  const now = usePlayingTime(playback)
  const whole = placed?.canvas ?? reel.largest
  const { attach, video } = playback
  const page = useRef<HTMLDivElement>(null)
  useMovingPicture(page, path, playback)
  const hardNow = hard.find((h) => h.span.start <= now && now < h.span.end)
  // biome-ignore lint/correctness/useExhaustiveDependencies: the element appears with the viewing copy, and is another for each recording
  useEffect(() => (video.current ? attach(video.current) : undefined), [attach, video, recording.viewable, playback.part])
  const cue = recording.viewable && cues.find((c) => c.span.start <= now && now < c.span.end)
  return (
    <div>
      <div className="relative overflow-hidden border border-ink bg-black" style={{ aspectRatio: whole ? `${whole.width} / ${whole.height}` : '16 / 9' }}>
        {recording.viewable ? (
          <div ref={page} className="absolute inset-0 origin-top-left" data-testid="page">
            {/* biome-ignore lint/a11y/useMediaCaption: the captions are drawn below, from the lesson's own cues */}
            <video
              key={playback.part}
              ref={video}
              src={`/api/recordings/${recording.hash}/view`}
              preload="auto"
              className="absolute max-w-none object-fill"
              style={placed ? onCanvas(placed) : { inset: 0, width: '100%', height: '100%' }}
              onClick={playback.toggle}
              aria-label="The recording"
            />
            <div className="pointer-events-none absolute" style={placed ? onCanvas(placed) : { inset: 0 }}>
              <AreasOnPicture />
            </div>
            {hardNow && placed && <DetailOverlay stretch={hardNow} placed={placed} />}
          </div>
        ) : (
          <p role="status" className="grid h-full place-items-center p-6 text-center text-white">
            {recording.analysisFailure ? 'It cannot be shown.' : 'The browser cannot play this recording as it is; a viewing copy is being made.'}
          </p>
        )}
        {recording.viewable && <CameraOnPicture />}
        {recording.viewable && <NotesOnPicture />}
        {recording.viewable && markStyle && house?.mark && <img src={house.mark} alt="" data-testid="mark" className="pointer-events-none" style={markStyle} />}
        {cue && (
          <p className="pointer-events-none absolute inset-x-4 bottom-3 text-center text-white">
            <span className="whitespace-pre-line bg-[#1d2129]/90 px-2 py-0.5">{cue.text}</span>
          </p>
        )}
      </div>
      <div className="mt-2 flex items-center gap-4">
        {recording.viewable ? (
          <Button look="link" onClick={playback.toggle}>
            {playback.playing ? 'Pause' : 'Play'}
          </Button>
        ) : (
          <span className="text-quiet">Not playable yet</span>
        )}
        <span className="font-mono" data-testid="playing-time">
          {exactClock(now)}
        </span>
        <span className="ml-auto font-mono text-small text-quiet">
          {whole ? `${whole.width} × ${whole.height}` : ''}
          {cues.length > 0 ? ' · captions' : ''}
        </span>
      </div>
    </div>
  )
}

/** Where the whole recording lies so that the part that is seen stands where it is rendered; the rest is clipped away. */
function onCanvas({ canvas, from, to, recorded }: Schemas['CanvasOutcome']): CSSProperties {
  const share = (part: number, of: number) => `${(100 * part) / of}%`
  const [across, down] = [to.width / from.width, to.height / from.height]
  const clip = (before: number, seen: number, all: number) => [share(before, all), share(all - before - seen, all)]
  const [left, right] = clip(from.x, from.width, recorded.width)
  const [top, bottom] = clip(from.y, from.height, recorded.height)
  return {
    left: share(to.x - from.x * across, canvas.width),
    top: share(to.y - from.y * down, canvas.height),
    width: share(recorded.width * across, canvas.width),
    height: share(recorded.height * down, canvas.height),
    clipPath: `inset(${top} ${right} ${bottom} ${left})`,
  }
}
