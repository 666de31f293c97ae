import { useEffect, useMemo, useRef, useState } from 'react'
import { useKey } from '../app/keys'

/** The picture that plays, for everything that seeks it or follows it. */
export function usePlayback(cuts: { start: number; end: number }[]) {
  const skipped = useRef(cuts)
  skipped.current = cuts
  const video = useRef<HTMLVideoElement>(null)
  const [playing, setPlaying] = useState(false)
  const listeners = useRef(new Set<(ms: number) => void>())
  const playback = useMemo(
    () => ({
      video,
      now: () => Math.round((video.current?.currentTime ?? 0) * 1000),
      seek(ms: number) {
        if (video.current) video.current.currentTime = Math.max(0, ms) / 1000
        for (const tell of listeners.current) tell(ms)
      },
      toggle() {
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
          const cut = !element.paused && skipped.current.find((c) => c.start - 5 <= element.currentTime * 1000 && element.currentTime * 1000 < c.end - 5)
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
    }),
    [],
  )
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
