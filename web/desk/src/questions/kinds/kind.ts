import type { ReactNode } from 'react'
import type { Interaction, Kind, Of, Question } from '../questions'

/** What is given to the part in which a question of some kind is written. */
export interface Writing<K extends Kind> {
  asks: Of<K>
  change: (asks: Of<K>) => void
  question: Question
}

/** How a kind of question is written in the sheet. */
export interface QuestionKind<K extends Kind> {
  /** What it is called where one is placed. */
  name: string
  /** One that nobody has written yet; what another kind said is kept where it fits. */
  fresh: (from?: Interaction) => Of<K>
  /** As it stands in the sheet, while it is not written. */
  Brief: (props: { asks: Of<K> }) => ReactNode
  Write: (props: Writing<K>) => ReactNode
}

/** The texts that any kind's answers have, to go on with them as another kind. */
export function textsOf(from: Interaction | undefined): string[] {
  switch (from?.kind) {
    case 'one':
    case 'several':
      return from.options.map((o) => o.text)
    case 'text':
      return from.accepted.map((a) => a.text)
    case 'order':
      return from.items.map((i) => i.text)
    case 'match':
      return from.pairs.map((p) => p.text)
    case 'place':
      return from.areas.map((a) => a.text)
    default:
      return []
  }
}
