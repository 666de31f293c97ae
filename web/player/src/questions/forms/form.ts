import type { Question } from '../../lesson'

export type Asked = Question['form']
export type Option = NonNullable<Asked['options']>[number]

/** The part of a question in which it is answered: a form that keys and screen readers use like any other. */
export interface Form {
  element: HTMLElement
  /** What is answered now; nothing where nothing is yet. */
  value(): string[]
  /** Why it cannot be sent as it is; null where it can. */
  missing(): string | null
  /** No more can be changed. */
  close(): void
  /** Lies over the picture; null for what does not. */
  over?: HTMLElement
}

/** What every kind is given. */
export interface Making {
  form: Asked
  /** Names the fields of this question. */
  name: string
  /** The answer that was given last; empty for none. */
  given: readonly string[]
  /** Options in the order in which this learner gets them. */
  options: readonly Option[]
  /** Tells what has changed, for whoever does not see it. */
  say(text: string): void
}

export type Kind = (making: Making) => Form

/** All fields of a form are closed. */
export const closeAll = (element: HTMLElement) => {
  for (const field of element.querySelectorAll<HTMLInputElement | HTMLButtonElement | HTMLSelectElement>('input, button, select')) field.disabled = true
}
