import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'

export type Area = Schemas['Area']
export type Note = Schemas['Note']
export type Action = Area['action']
export type ActionKind = Action['kind']
export type Of<K extends ActionKind> = Extract<Action, { kind: K }>

/** The shortest that one is there, in milliseconds. */
const shortest = 200
/** How long a new one is there, where there is room. */
export const usual = { area: 10_000, note: 6_000 }

export const spanOf = (start: number, end: number, length: number) => {
  const from = Math.round(Math.max(0, Math.min(start, length - shortest)))
  const to = Math.round(Math.min(length, Math.max(end, from + shortest)))
  return { start: from, end: to, length: to - from }
}

/** The same stretch elsewhere, as long as it was where there is room. */
export const movedTo = (span: Area['span'], start: number, length: number) => spanOf(start, start + (span.end - span.start), length)

type Lists = { areas: Area; notes: Note }

/** The changes of one list of things that lie over the picture. */
const changesOf = <K extends keyof Lists>(name: K) => {
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

export const ofAreas = changesOf('areas')
export const ofNotes = changesOf('notes')
