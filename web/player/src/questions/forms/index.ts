import { one, several } from './choice'
import type { Asked, Kind } from './form'
import { gaps } from './gaps'
import { match } from './match'
import { order } from './order'
import { place } from './place'
import { number, text } from './typed'

/** How each kind is answered, by the name that Wexel.Core.Questions.Interaction gives it. A line here registers one. */
export const forms: Record<Asked['kind'], Kind> = { one, several, truth: one, text, number, order, match, gaps, place }
