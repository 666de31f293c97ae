import { useEffect, useMemo, useRef, useState } from 'react'
import { useKey } from '../app/keys'
import { partAt } from '../lessons/useLessons'
import type { Cut } from './blocks'

const aroundMs = 2000

/** The picture that plays, for everything that seeks it or follows it: one recording after the other, in the time of them all. */
export function usePlayback(cuts: Cut[], parts: { span: Cut }[]) {
  const skipped = useRef(cuts)
  skipped.current = cuts
  const spans = useRef(parts)
  spans.current = parts
  const video = useRef<HTMLVideoElement>(null)
  // What is listened to on trial: over a cut that is not made, or up to a moment.
  const trial = useRef<{ cut?: Cut; until: number }>(undefined)
  // Which recording plays; while another is being fetched, where it is to begin and whether it is to play.
  const place = useRef<{ part: number; coming?: { at: number; play: boolean } }>({ part: 0 })
  const [part, setPart] = useState(0)
  const [playing, setPlaying] = useState(false)
  const listeners = useRef(new Set<(ms: number) => void>())
  const playback = useMemo(() => {
    const start = () => spans.current[place.current.part]?.span.start ?? 0
    const now = () => Math.round(start() + (place.current.coming?.at ?? (video.current?.currentTime ?? 0) * 1000))
    const go = (ms: number, play: boolean) => {
      const to = partAt(spans.current, ms)
      const at = Math.max(0, ms - (spans.current[to]?.span.start ?? 0))
      if (to !== place.current.part) {
        place.current = { part: to, coming: { at, play } }
        setPart(to)
      } else if (place.current.coming) place.current.coming = { at, play: play || place.current.coming.play }
      else if (video.current) {
        video.current.currentTime = at / 1000
        if (play && video.current.paused) video.current.play().catch(() => undefined)
      }
    }
    const seek = (ms: number) => {
      trial.current = undefined
      go(ms, video.current ? !video.current.paused : false)
      for (const tell of listeners.current) tell(ms)
    }
    return {
      video,
      seek,
      now,
      /** Plays a stretch and stops. */
      hear(stretch: Cut) {
        seek(stretch.start)
        trial.current = { until: stretch.end }
        go(stretch.start, true)
      },
      /** Plays over a stretch as if it were cut, from a little before to a little after. */
      hearCut(stretch: Cut) {
        const from = stretch.start > 0 ? Math.max(0, stretch.start - aroundMs) : stretch.end
        seek(from)
        trial.current = { cut: stretch, until: stretch.end + aroundMs }
        go(from, true)
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
        const begin = () => {
          const { coming } = place.current
          if (!coming || element.readyState < HTMLMediaElement.HAVE_METADATA) return
          place.current.coming = undefined
          element.currentTime = coming.at / 1000
          if (coming.play) element.play().catch(() => undefined)
        }
        const told = () => {
          if (video.current !== element || place.current.coming) return
          // What is cut is passed over while playing; standing still, it can be looked at.
          const ms = now()
          if (trial.current && !element.paused && ms >= trial.current.until) {
            trial.current = undefined
            element.pause()
          }
          const passed = trial.current?.cut ? [trial.current.cut, ...skipped.current] : skipped.current
          const cut = !element.paused && passed.find((c) => c.start - 5 <= ms && ms < c.end - 5)
          const length = spans.current.at(-1)?.span.end ?? 0
          if (cut && !element.seeking) {
            if (cut.end >= length - 50) element.pause()
            else go(cut.end, true)
          }
          for (const tell of listeners.current) tell(now())
        }
        const ended = () => {
          const next = spans.current[place.current.part + 1]
          if (next && video.current === element) go(next.span.start, true)
        }
        const changed = () => setPlaying(!element.paused)
        let frame = 0
        const run = () => {
          told()
          if (!element.paused) frame = requestAnimationFrame(run)
        }
        element.addEventListener('play', run)
        element.addEventListener('loadedmetadata', begin)
        element.addEventListener('ended', ended)
        for (const event of ['timeupdate', 'seeked', 'loadedmetadata']) element.addEventListener(event, told)
        for (const event of ['play', 'pause', 'ended']) element.addEventListener(event, changed)
        begin()
        return () => {
          cancelAnimationFrame(frame)
          changed()
        }
      },
    }
  }, [])
  // Fewer recordings than before: the last one is shown.
  useEffect(() => {
    if (parts.length > 0 && place.current.part >= parts.length) {
      place.current = { part: parts.length - 1, coming: { at: 0, play: false } }
      setPart(parts.length - 1)
    }
  }, [parts.length])
  useKey(' ', playback.toggle)
  useKey('ArrowLeft', () => playback.seek(playback.now() - 5000))
  useKey('ArrowRight', () => playback.seek(playback.now() + 5000))
  useKey('shift+ArrowLeft', () => playback.seek(playback.now() - 33))
  useKey('shift+ArrowRight', () => playback.seek(playback.now() + 34))
  return { ...playback, playing, part: Math.min(part, Math.max(0, parts.length - 1)) }
}

export type Playback = ReturnType<typeof usePlayback>

/** The playing time, to a tenth of a second, for words on the screen. */
export function usePlayingTime(playback: Playback): number {
  const [ms, set] = useState(0)
  const { follow } = playback
  useEffect(() => follow((now) => set(Math.floor(now / 100) * 100)), [follow])
  return ms
}
