import { useEffect, useMemo, useRef, useState } from 'react'
import { useKey } from '../app/keys'
import type { Cut } from './blocks'

const aroundMs = 2000

/** The picture that plays, for everything that seeks it or follows it. */
export function usePlayback(cuts: Cut[]) {
  const skipped = useRef(cuts)
  skipped.current = cuts
  const video = useRef<HTMLVideoElement>(null)
  // What is listened to on trial: over a cut that is not made, or up to a moment.
  const trial = useRef<{ cut?: Cut; until: number }>(undefined)
  const [playing, setPlaying] = useState(false)
  const listeners = useRef(new Set<(ms: number) => void>())
  const playback = useMemo(() => {
    const seek = (ms: number) => {
      trial.current = undefined
      if (video.current) video.current.currentTime = Math.max(0, ms) / 1000
      for (const tell of listeners.current) tell(ms)
    }
    return {
      video,
      seek,
      now: () => Math.round((video.current?.currentTime ?? 0) * 1000),
      /** Plays a stretch and stops. */
      hear(stretch: Cut) {
        seek(stretch.start)
        trial.current = { until: stretch.end }
        video.current?.play().catch(() => undefined)
      },
      /** Plays over a stretch as if it were cut, from a little before to a little after. */
      hearCut(stretch: Cut) {
        seek(stretch.start > 0 ? Math.max(0, stretch.start - aroundMs) : stretch.end)
        trial.current = { cut: stretch, until: stretch.end + aroundMs }
        video.current?.play().catch(() => undefined)
      },
      toggle() {
        trial.current = undefined
        const v = video.current
        if (v) v.paused ? v.play().catch(() => undefined) : v.pause()
      },
      /** Calls back with the time at every frame while playing, and on every seek. */
      follow(tell: (ms: number) => void) {
        listeners.current.add(tell)
        return () => void listeners.current.delete(tell)
      },
      attach(element: HTMLVideoElement) {
        const told = () => {
          // What is cut is passed over while playing; standing still, it can be looked at.
          const ms = element.currentTime * 1000
          if (trial.current && !element.paused && ms >= trial.current.until) {
            trial.current = undefined
            element.pause()
          }
          const passed = trial.current?.cut ? [trial.current.cut, ...skipped.current] : skipped.current
          const cut = !element.paused && passed.find((c) => c.start - 5 <= ms && ms < c.end - 5)
          if (cut && !element.seeking) {
            if (cut.end / 1000 >= element.duration - 0.05) element.pause()
            else element.currentTime = cut.end / 1000
          }
          for (const tell of listeners.current) tell(element.currentTime * 1000)
        }
        const changed = () => setPlaying(!element.paused)
        let frame = 0
        const run = () => {
          told()
          if (!element.paused) frame = requestAnimationFrame(run)
        }
        element.addEventListener('play', run)
        for (const event of ['timeupdate', 'seeked', 'loadedmetadata']) element.addEventListener(event, told)
        for (const event of ['play', 'pause', 'ended']) element.addEventListener(event, changed)
        return () => cancelAnimationFrame(frame)
      },
    }
  }, [])
  useKey(' ', playback.toggle)
  useKey('ArrowLeft', () => playback.seek(playback.now() - 5000))
  useKey('ArrowRight', () => playback.seek(playback.now() + 5000))
  useKey('shift+ArrowLeft', () => playback.seek(playback.now() - 33))
  useKey('shift+ArrowRight', () => playback.seek(playback.now() + 34))
  return { ...playback, playing }
}

export type Playback = ReturnType<typeof usePlayback>

/** The playing time, to a tenth of a second, for words on the screen. */
export function usePlayingTime(playback: Playback): number {
  const [ms, set] = useState(0)
  const { follow } = playback
  useEffect(() => follow((now) => set(Math.floor(now / 100) * 100)), [follow])
  return ms
}
