import { HubConnectionBuilder, LogLevel } from '@microsoft/signalr'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { tellIfAllIsDone } from '../queue/tell'
import type { Schemas } from './api'

type RenditionNews = { id: string; lessonId: string; state: Schemas['RenditionState']; progress: number; secondsLeft: number | null }
type Delivery = Schemas['DeliverView']
type Rendition = Schemas['RenditionView']

/** Keeps what is on screen true: news from the server refreshes or adjusts what was fetched. */
export function useLiveNews() {
  const client = useQueryClient()
  useEffect(() => {
    const hub = new HubConnectionBuilder().withUrl('/live').withAutomaticReconnect().configureLogging(LogLevel.None).build()
    const patch =
      (news: RenditionNews) =>
      (r: Rendition): Rendition =>
        r.id === news.id ? { ...r, state: news.state, progress: news.progress, secondsLeft: news.secondsLeft } : r
    hub.on('rendition', (news: RenditionNews) => {
      if (news.state !== 'working') {
        client.invalidateQueries({ queryKey: ['queue'] })
        client.invalidateQueries({ queryKey: ['deliver', news.lessonId] })
        client.invalidateQueries({ queryKey: ['lessons'] })
        if (news.state === 'done' || news.state === 'failed') tellIfAllIsDone(client)
        return
      }
      client.setQueryData<Rendition[]>(['queue'], (list) => list?.map(patch(news)))
      client.setQueryData<Delivery>(['deliver', news.lessonId], (d) => d && { ...d, renditions: d.renditions.map(patch(news)) })
    })
    hub.on('recording', (hash: string) => {
      client.invalidateQueries({ predicate: ({ queryKey: [kind, hashes] }) => kind === 'reel' && String(hashes).includes(hash) })
      client.invalidateQueries({ queryKey: ['deliver'] })
    })
    hub.on('upload', () => client.invalidateQueries({ queryKey: ['lessons'] }))
    hub.on('lesson', (id: string) => {
      client.invalidateQueries({ queryKey: ['lessons'] })
      client.invalidateQueries({ queryKey: ['lesson', id] })
      client.invalidateQueries({ queryKey: ['board'] })
      client.invalidateQueries({ queryKey: ['deliver', id] })
      client.invalidateQueries({ queryKey: ['releases', id] })
    })
    // Without the live line everything still works on reload; the connection is tried again by itself.
    hub.onreconnected(() => client.invalidateQueries())
    hub.start().catch(() => undefined)
    return () => void hub.stop()
  }, [client])
}
