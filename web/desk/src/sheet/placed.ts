import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'

type Span = Schemas['TimeRange']

/** The shortest that something which is seen is there, in milliseconds. */
const shortest = 200

/** A stretch within the recordings, in whole milliseconds, and never shorter than may be. */
export const spanOf = (start: number, end: number, length: number, least = shortest): Span => {
  const from = Math.round(Math.max(0, Math.min(start, length - least)))
  const to = Math.round(Math.min(length, Math.max(end, from + least)))
  return { start: from, end: to, length: to - from }
}

/** The same stretch elsewhere, as long as it was where there is room. */
export const movedTo = (span: Span, start: number, length: number) => spanOf(start, start + (span.end - span.start), length)

interface Lists {
  areas: Schemas['Area']
  notes: Schemas['Note']
  sounds: Schemas['SoundBed']
}

/** The changes of one list of things that lie over a stretch. */
export const changesOf = <K extends keyof Lists>(name: K) => {
  type T = Lists[K]
  const listed = (d: Document) => d[name] as unknown as T[]
  const inOrder = (things: T[]) => [...things].sort((a, b) => a.span.start - b.span.start)
  const set = (d: Document, things: T[]): Document => ({ ...d, [name]: inOrder(things) })
  return {
    added: (d: Document, thing: T) => set(d, [...listed(d), thing]),
    changed: (d: Document, id: string, to: Partial<T>) =>
      set(
        d,
        listed(d).map((t) => (t.id === id ? { ...t, ...to } : t)),
      ),
    without: (d: Document, id: string) =>
      set(
        d,
        listed(d).filter((t) => t.id !== id),
      ),
  }
}
