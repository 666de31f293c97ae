import { HubConnectionBuilder, LogLevel } from '@microsoft/signalr'
import type { QueryClient, QueryKey } from '@tanstack/react-query'
import { tellIfAllIsDone } from '../queue/tell'
import type { Schemas } from './api'

type RenditionNews = { lessonId: string; state: Schemas['RenditionState'] }
type ProgressNews = { renditions: string[]; lessons: string[]; progress: number; secondsLeft: number | null }
type Delivery = Schemas['DeliverView']
type Rendition = Schemas['RenditionView']

/** How long news is gathered before what it changes is fetched, in milliseconds. */
const together = 100

/**
 * Opens the live line: news from the server refreshes or adjusts what was fetched.
 * @returns What closes it.
 */
export function listen(client: QueryClient): () => void {
  const hub = new HubConnectionBuilder().withUrl('/live').withAutomaticReconnect().configureLogging(LogLevel.None).build()
  const toFetch = new Map<string, QueryKey>()
  let ended = false
  let timer: ReturnType<typeof setTimeout> | undefined
  // What is made in one pass begins and ends together: what that changes is fetched once for all of it.
  const fetchSoon = (...keys: QueryKey[]) => {
    for (const key of keys) toFetch.set(JSON.stringify(key), key)
    timer ??= setTimeout(() => {
      timer = undefined
      const now = [...toFetch.values()]
      toFetch.clear()
      for (const queryKey of now) client.invalidateQueries({ queryKey })
      if (ended) tellIfAllIsDone(client)
      ended = false
    }, together)
  }
  hub.on('rendition', (news: RenditionNews) => {
    ended ||= news.state === 'done' || news.state === 'failed'
    fetchSoon(['queue'], ['deliver', news.lessonId], ['lessons'])
  })
  hub.on('progress', ({ renditions, lessons, ...reached }: ProgressNews) => {
    const made = new Set(renditions)
    // One that somebody stopped is no longer worked on, whatever the rest of its pass does.
    const patch = (r: Rendition): Rendition => (made.has(r.id) && r.state === 'working' ? { ...r, ...reached } : r)
    client.setQueryData<Rendition[]>(['queue'], (list) => list?.map(patch))
    for (const lesson of lessons) client.setQueryData<Delivery>(['deliver', lesson], (d) => d && { ...d, renditions: d.renditions.map(patch) })
  })
  hub.on('recording', (hash: string) => {
    client.invalidateQueries({ predicate: ({ queryKey: [kind, hashes] }) => kind === 'reel' && String(hashes).includes(hash) })
    client.invalidateQueries({ queryKey: ['deliver'] })
    fetchSoon(['draft'], ['proposals'], ['script'])
  })
  hub.on('upload', () => client.invalidateQueries({ queryKey: ['lessons'] }))
  hub.on('course', () => fetchSoon(['board', 'courses']))
  hub.on('lesson', (id: string) => {
    for (const queryKey of [
      ['lesson', id],
      ['deliver', id],
      ['releases', id],
      ['notes', id],
      ['proposals', id],
      ['script', id],
    ])
      client.invalidateQueries({ queryKey })
    // Lists of many are fetched once for all that comes together.
    fetchSoon(['lessons'], ['board'])
  })
  // Without the live line everything still works on reload; the connection is tried again by itself.
  hub.onreconnected(() => client.invalidateQueries())
  // What was saved between the page's own asking and the opening of the line, as by the page that this one takes the place of, was told to nobody here.
  hub.start().then(
    () => client.invalidateQueries({ queryKey: ['lesson'] }),
    () => undefined,
  )
  return () => {
    clearTimeout(timer)
    void hub.stop()
  }
}
