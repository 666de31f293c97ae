import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'

export type Question = Schemas['Question']
export type Interaction = Schemas['Interaction']
export type Kind = Interaction['kind']
export type Of<K extends Kind> = Extract<Interaction, { kind: K }>

/** A name inside a question: a letter first, as other formats want it. Nothing in it says what is right. */
export const newId = () => `x${crypto.randomUUID().slice(0, 8)}`

/** A question nobody has written yet. */
export const fresh = (at: number, asks: Interaction): Question => ({
  id: crypto.randomUUID(),
  at,
  text: '',
  asks,
  when: 'here',
  points: 1,
  must: false,
  tries: 1,
  penalty: 0,
  right: '',
  wrong: '',
  hints: [],
  again: null,
  tags: [],
})

const inOrder = (questions: Question[]) => [...questions].sort((a, b) => a.at - b.at)

export const added = (d: Document, question: Question): Document => ({ ...d, questions: inOrder([...d.questions, question]) })

export const changed = (d: Document, id: string, change: (q: Question) => Question): Document => ({
  ...d,
  questions: inOrder(d.questions.map((q) => (q.id === id ? change(q) : q))),
})

export const without = (d: Document, id: string): Document => ({ ...d, questions: d.questions.filter((q) => q.id !== id) })

/** Of the questions with a tag, so many are asked of each learner; 0 for all. */
export const drawn = (d: Document, tag: string, take: number): Document => ({
  ...d,
  draws: [...(d.draws ?? []).filter((draw) => draw.tag !== tag), ...(take > 0 ? [{ tag, take }] : [])],
})

/** When it is asked, in words; nothing for the usual. */
export const whenWords: Record<Question['when'], string> = {
  here: 'asked here',
  sectionEnd: 'asked at the end of its section',
  lessonEnd: 'asked at the lesson’s end',
}

/** How somebody answers and what it counts, in words. */
export function termsOf(question: Question): string[] {
  const { when, points, must, tries, penalty } = question
  return [
    ...(when === 'here' ? [] : [whenWords[when]]),
    points === 0 ? 'counts nothing' : `${points} ${points === 1 ? 'point' : 'points'}`,
    ...(tries === 1 ? [] : [tries === 0 ? 'any number of tries' : `${tries} tries`]),
    ...(penalty > 0 && tries !== 1 ? [`${penalty} % less each`] : []),
    must ? 'must be answered' : 'may be passed over',
    ...(question.tags ?? []),
  ]
}
