import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'
import type { ShelfSound } from './shelf'

export type Bed = Schemas['SoundBed']

/** The shortest that one is heard, in milliseconds. */
const shortest = 50

export const spanOf = (start: number, end: number, length: number) => {
  const from = Math.round(Math.max(0, Math.min(start, length - shortest)))
  const to = Math.round(Math.min(length, Math.max(end, from + shortest)))
  return { start: from, end: to, length: to - from }
}

/** A sound as it is laid where nobody chose otherwise: music comes and goes, and ends at a bar; an effect is heard once. */
export function laid(sound: ShelfSound, isEffect: boolean, from: number, to: number, length: number): Bed {
  return {
    id: crypto.randomUUID(),
    span: spanOf(from, isEffect ? from + sound.length : to, length),
    sound,
    fadeIn: isEffect ? 0 : 500,
    fadeOut: isEffect ? 0 : 1500,
    apart: 20,
    duck: isEffect ? 15 : 10,
    attack: 300,
    release: 800,
    loops: !isEffect,
    endsAtBar: !isEffect && sound.tempo != null,
  }
}

const set = (d: Document, sounds: Bed[]): Document => ({ ...d, sounds: [...sounds].sort((a, b) => a.span.start - b.span.start) })

export const added = (d: Document, bed: Bed) => set(d, [...d.sounds, bed])

export const changed = (d: Document, id: string, to: Partial<Bed>) =>
  set(
    d,
    d.sounds.map((b) => (b.id === id ? { ...b, ...to } : b)),
  )

export const without = (d: Document, id: string) =>
  set(
    d,
    d.sounds.filter((b) => b.id !== id),
  )
