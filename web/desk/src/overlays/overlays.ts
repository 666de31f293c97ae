import type { Schemas } from '../app/api'
import { changesOf } from '../sheet/placed'

export type Area = Schemas['Area']
export type Note = Schemas['Note']
export type Action = Area['action']
export type ActionKind = Action['kind']
export type Of<K extends ActionKind> = Extract<Action, { kind: K }>

/** How long a new one is there, where there is room. */
export const usual = { area: 10_000, note: 6_000 }

export const ofAreas = changesOf('areas')
export const ofNotes = changesOf('notes')
