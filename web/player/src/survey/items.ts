import { element } from '../element'
import type { Lesson } from '../lesson'

export type Item = NonNullable<Lesson['survey']>['items'][number]
type Of<K extends Item['kind']> = Extract<Item, { kind: K }>

/** One thing that is asked, and what was said to it; nothing has to be. */
export interface Asked {
  element: HTMLElement
  value(): string[]
}

const checked = (inputs: readonly HTMLInputElement[]) => inputs.filter((input) => input.checked).map((input) => input.value)

function group(item: Item, ...inside: Node[]) {
  return element('fieldset', {}, element('legend', { dir: 'auto' }, item.text), ...inside)
}

function scale(item: Of<'scale'>): Asked {
  const inputs = Array.from({ length: item.steps }, (_, i) => element('input', { type: 'radio', name: `wexel-${item.id}`, value: String(i + 1) }))
  const end = (i: number) => (i === 0 ? item.low : i === item.steps - 1 ? item.high : '')
  return {
    element: group(
      item,
      element(
        'div',
        { class: 'scale' },
        element('span', { dir: 'auto' }, item.low),
        ...inputs.map((input, i) => element('label', {}, input, String(i + 1), element('span', { class: 'spoken' }, end(i)))),
        element('span', { dir: 'auto' }, item.high),
      ),
    ),
    value: () => checked(inputs),
  }
}

function choice(item: Of<'choice'>): Asked {
  const inputs = item.options.map((o) => element('input', { type: item.several ? 'checkbox' : 'radio', name: `wexel-${item.id}`, value: o.id }))
  return {
    element: group(
      item,
      element('div', { class: 'options' }, ...item.options.map((o, i) => element('label', {}, inputs[i], element('span', { dir: 'auto' }, o.text)))),
    ),
    value: () => checked(inputs),
  }
}

function comment(item: Of<'comment'>): Asked {
  const field = element('textarea', { rows: '3', maxlength: '2000', dir: 'auto' })
  return {
    element: element('label', { class: 'comment' }, element('span', { dir: 'auto' }, item.text), field),
    value: () => (field.value.trim() ? [field.value.trim()] : []),
  }
}

/** A form a kind, by the names of Wexel.Core.Surveys.Kinds. */
const forms: { [K in Item['kind']]: (item: Of<K>) => Asked } = { scale, choice, comment }

export const asked = <K extends Item['kind']>(item: Of<K>): Asked => forms[item.kind as K](item)
