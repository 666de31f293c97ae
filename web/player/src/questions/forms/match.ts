import { element } from '../../element'
import { closeAll, type Form, type Making } from './form'

/** To each line on the left, one of the right is chosen. */
export function match({ form, name, given, options }: Making): Form {
  const targets = form.targets ?? []
  const known = new Map(given.map((pair) => pair.split(' ') as [string, string]))
  const fields = options.map((option, i) => {
    const id = `${name}-${i}`
    const choice = element('select', { id }, element('option', { value: '' }, 'Choose …'), ...targets.map((t) => element('option', { value: t.id }, t.text)))
    choice.value = known.get(option.id) ?? ''
    return { option, choice, row: element('li', {}, element('label', { for: id, dir: 'auto' }, option.text), choice) }
  })
  const made = element('ul', { class: 'match' }, ...fields.map((f) => f.row))
  return {
    element: made,
    value: () => fields.filter((f) => f.choice.value !== '').map((f) => `${f.option.id} ${f.choice.value}`),
    missing: () => (fields.every((f) => f.choice.value !== '') ? null : 'Choose something for every line.'),
    close: () => closeAll(made),
  }
}
