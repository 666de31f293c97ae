import type { Schemas } from '../app/api'
import { changesOf, spanOf } from '../sheet/placed'
import type { ShelfSound } from './shelf'

export type Bed = Schemas['SoundBed']

/** The shortest that one is heard, in milliseconds. */
const shortest = 50

export const heardIn = (start: number, end: number, length: number) => spanOf(start, end, length, shortest)

/** A sound as it is laid where nobody chose otherwise: music comes and goes, and ends at a bar; an effect is heard once. */
export function laid(sound: ShelfSound, isEffect: boolean, from: number, to: number, length: number): Bed {
  return {
    id: crypto.randomUUID(),
    span: heardIn(from, isEffect ? from + sound.length : to, length),
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

export const ofSounds = changesOf('sounds')
