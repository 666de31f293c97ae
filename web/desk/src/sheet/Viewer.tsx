import { useEffect } from 'react'
import type { Schemas } from '../app/api'
import { useHouse, useMarkStyle } from '../kit/useMark'
import { Button } from '../ui/Button'
import { exactClock } from '../ui/words'
import { type Playback, usePlayingTime } from './usePlayback'

/** The picture that is playing, with its captions. */
export function Viewer({ recording, cues, playback, mark }: { recording: Schemas['RecordingView']; cues: Schemas['Cue'][]; playback: Playback; mark: boolean }) {
  const house = useHouse().data
  const markStyle = useMarkStyle(mark ? house?.placement : null, recording.facts.picture?.shownSize)
  const now = usePlayingTime(playback)
  const shown = recording.facts.picture?.shownSize
  const { attach, video } = playback
  // biome-ignore lint/correctness/useExhaustiveDependencies: the element appears with the viewing copy
  useEffect(() => (video.current ? attach(video.current) : undefined), [attach, video, recording.viewable])
  const cue = recording.viewable && cues.find((c) => c.span.start <= now && now < c.span.end)
  return (
    <div>
      <div className="relative border border-ink bg-black" style={{ aspectRatio: shown ? `${shown.width} / ${shown.height}` : '16 / 9' }}>
        {recording.viewable ? (
          // biome-ignore lint/a11y/useMediaCaption: the captions are drawn below, from the lesson's own cues
          <video ref={video} src={`/api/recordings/${recording.hash}/view`} preload="auto" className="h-full w-full" onClick={playback.toggle} aria-label="The recording" />
        ) : (
          <p role="status" className="grid h-full place-items-center p-6 text-center text-white">
            {recording.analysisFailure ? 'It cannot be shown.' : 'The browser cannot play this recording as it is; a viewing copy is being made.'}
          </p>
        )}
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
        <span className="ml-auto font-mono text-[13px] text-quiet">
          {shown ? `${shown.width} × ${shown.height}` : ''}
          {cues.length > 0 ? ' · captions' : ''}
        </span>
      </div>
    </div>
  )
}
