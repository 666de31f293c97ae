import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import type { Playback } from '../sheet/usePlayback'
import { lessonTime, schedule } from './mix'
import { addressOf } from './shelf'

/** So far what is heard may be from where the picture is before it is brought back, in milliseconds. */
const mostApart = 80

/** The numbers by which a saved lesson is mixed. */
export const useMixing = (lessonId: string, revision: number | undefined, wanted: boolean) =>
  useQuery({
    queryKey: ['mixing', lessonId, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/mixing', { params: { path: { id: lessonId } } })),
    enabled: wanted && revision !== undefined,
    placeholderData: (before) => before,
  })

/** Lets what lies under the voice be heard where the lesson plays, by the numbers of its renditions. */
export function useMix(lessonId: string, revision: number | undefined, document: Document | undefined, playback: Playback) {
  const under = useMixing(lessonId, revision, Boolean(document?.sounds.length)).data?.under
  const [ready, setReady] = useState<ReadonlyMap<string, AudioBuffer>>()
  const context = useRef<AudioContext>(undefined)
  const names = [...new Set(under?.beds.map((b) => b.sound))].sort().join()
  useEffect(() => {
    if (!names) return
    const leaving = new AbortController()
    context.current ??= new AudioContext()
    const { current } = context
    const fetched = names.split(',').map(async (name) => {
      const answer = await fetch(addressOf(name), { signal: leaving.signal })
      return [name, await current.decodeAudioData(await answer.arrayBuffer())] as const
    })
    // What cannot be fetched is not heard; its place in the sheet says so when it is saved or rendered.
    Promise.allSettled(fetched).then((all) => {
      if (!leaving.signal.aborted) setReady(new Map(all.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []))))
    })
    return () => leaving.abort()
  }, [names])
  useEffect(
    () => () => {
      context.current?.close()
      context.current = undefined
    },
    [],
  )

  const cuts = document?.cuts
  const { follow, now, playing, video } = playback
  useEffect(() => {
    const { current } = context
    if (!playing || !under || !ready || !cuts || !current) return
    current.resume()
    const volume = current.createGain()
    volume.connect(current.destination)
    let stop: (() => void) | undefined
    let began = { lesson: 0, context: 0 }
    const begin = (at: number) => {
      stop?.()
      began = { lesson: at, context: current.currentTime + 0.02 }
      stop = schedule(current, volume, under, ready, at + 20, began.context)
    }
    const keep = (ms: number) => {
      const at = lessonTime(ms, cuts)
      volume.gain.value = video.current?.muted ? 0 : (video.current?.volume ?? 1)
      const heard = began.lesson + (current.currentTime + 0.02 - began.context) * 1000
      if (!stop || Math.abs(heard - at) > mostApart) begin(at)
    }
    keep(now())
    const leave = follow(keep)
    return () => {
      leave()
      stop?.()
      volume.disconnect()
    }
  }, [playing, under, ready, cuts, follow, now, video])
}
