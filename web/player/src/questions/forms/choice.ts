import { element } from '../../element'
import { closeAll, type Form, type Making } from './form'

/** One or several of some options, as boxes with their words beside them. */
function boxes({ name, given, options }: Making, type: 'radio' | 'checkbox', missing: string): Form {
  const inputs = options.map((option) => {
    const input = element('input', { type, name, value: option.id })
    input.checked = given.includes(option.id)
    return input
  })
  const made = element(
    'div',
    { class: 'options' },
    ...options.map((option, i) => element('label', {}, inputs[i], element('span', { dir: 'auto' }, option.text))),
  )
  const value = () => inputs.filter((input) => input.checked).map((input) => input.value)
  return { element: made, value, missing: () => (value().length > 0 ? null : missing), close: () => closeAll(made) }
}

export const one = (making: Making) => boxes(making, 'radio', 'Choose one answer.')
export const several = (making: Making) => boxes(making, 'checkbox', 'Choose one answer or more.')
