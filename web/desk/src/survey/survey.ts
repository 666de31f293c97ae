import type { Schemas } from '../app/api'

export type Survey = Schemas['Survey']
export type Item = Survey['items'][number]
export type ItemKind = Item['kind']
export type Of<K extends ItemKind> = Extract<Item, { kind: K }>

/** By which the survey is selected; there is one. */
export const theSurvey = 'survey'

export const newItemId = () => `i${crypto.randomUUID().slice(0, 8)}`

/** What most begin with. */
export const usual = (): Survey => ({
  title: '',
  named: false,
  items: [
    { kind: 'scale', id: newItemId(), text: 'This lesson helps me at work.', steps: 5, low: 'not at all', high: 'very much' },
    { kind: 'comment', id: newItemId(), text: 'What was missing, or too much?' },
  ],
})
