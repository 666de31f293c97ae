import { element } from '../../element'
import { closeAll, type Form, type Making } from './form'

/** A field for a few words or a number. */
function field({ name, given, form }: Making, label: string, missing: string, decimal: boolean): Form {
  const input = element('input', { type: 'text', name, 'aria-label': label, maxlength: '500', autocomplete: 'off', inputmode: decimal ? 'decimal' : null })
  input.value = given[0] ?? ''
  const made = element('div', { class: decimal ? 'typed number' : 'typed' }, input, form.unit ? element('span', {}, form.unit) : null)
  const value = () => (input.value.trim() === '' ? [] : [input.value.normalize('NFC')])
  return { element: made, value, missing: () => (value().length > 0 ? null : missing), close: () => closeAll(made) }
}

export const text = (making: Making) => field(making, 'Your answer', 'Write an answer.', false)
export const number = (making: Making) =>
  field(making, making.form.unit ? `Your answer, in ${making.form.unit}` : 'Your answer, a number', 'Write a number.', true)
