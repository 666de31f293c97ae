import { element } from '../../element'
import { closeAll, type Form, type Making } from './form'

/** A text with fields in it: typed into, or chosen from words. */
export function gaps({ form, given }: Making): Form {
  const parts = form.parts ?? ['']
  const count = parts.length - 1
  const fields = Array.from({ length: count }, (_, i) => {
    const label = `Gap ${i + 1} of ${count}`
    const made = form.targets
      ? element(
          'select',
          { 'aria-label': label },
          element('option', { value: '' }, '…'),
          ...form.targets.map((t) => element('option', { value: t.id }, t.text)),
        )
      : element('input', { type: 'text', 'aria-label': label, maxlength: '200', autocomplete: 'off', size: '12' })
    made.value = given[i] ?? ''
    return made
  })
  const made = element('p', { class: 'gaps', dir: 'auto' }, ...parts.flatMap((part, i) => (i < count ? [part, fields[i]] : [part])))
  const value = () => fields.map((f) => f.value.trim().normalize('NFC'))
  return {
    element: made,
    value,
    missing: () => (value().some((v) => v !== '') ? null : 'Fill a gap first.'),
    close: () => closeAll(made),
  }
}
