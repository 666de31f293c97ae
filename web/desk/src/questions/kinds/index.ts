import type { Kind } from '../questions'
import { match, order } from './arranged'
import { one, several, truth } from './choices'
import type { QuestionKind } from './kind'
import { place } from './place'
import { gaps, number, text } from './typed'

/** How each kind is written, by the name that Wexel.Core.Questions.Interaction gives it, in the order in which they are offered. A line here registers one. */
export const kinds: { [K in Kind]: QuestionKind<K> } = { one, several, truth, text, number, order, match, gaps, place }

export const kindNames = Object.keys(kinds) as Kind[]

/** A kind without knowing which it is. */
export const kindOf = (kind: Kind) => kinds[kind] as unknown as QuestionKind<Kind>
