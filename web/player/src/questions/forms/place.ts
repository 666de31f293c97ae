import { element } from '../../element'
import { closeAll, type Form, type Making } from './form'

/** A picture's width and height in the steps in which places are written; see Wexel.Core.Scoring.Place. */
const steps = 10_000
const byKey: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }

/** A place on the picture: clicked, or gone to by the arrow keys; or chosen in words, where places have some. */
export function place({ given, options, name, say }: Making): Form {
  let at: [number, number] | null = null
  const mark = element('span', { class: 'mark', hidden: true, 'aria-hidden': 'true' })
  const over = element(
    'div',
    { class: 'places', tabindex: '0', role: 'application', 'aria-label': 'The picture. Arrow keys move a mark over it, with Shift in small steps.' },
    mark,
  )
  const words = element('p', { class: 'fine' })
  const radios = options.map((option) => element('input', { type: 'radio', name, value: option.id }))
  const put = (x: number, y: number, spoken: boolean) => {
    const within = (value: number) => Math.min(steps, Math.max(0, Math.round(value)))
    at = [within(x), within(y)]
    mark.hidden = false
    mark.style.left = `${at[0] / 100}%`
    mark.style.top = `${at[1] / 100}%`
    const text = `The mark is ${Math.round(at[0] / 100)} % across and ${Math.round(at[1] / 100)} % down.`
    words.textContent = text
    if (spoken) say(text)
    for (const radio of radios) radio.checked = radio.value === at.join(' ')
  }
  over.addEventListener('click', (event) => {
    const box = over.getBoundingClientRect()
    put(((event.clientX - box.left) / box.width) * steps, ((event.clientY - box.top) / box.height) * steps, false)
  })
  over.addEventListener('keydown', (event) => {
    const way = byKey[event.key]
    if (!way) return
    event.preventDefault()
    const [x, y] = at ?? [steps / 2, steps / 2]
    const step = event.shiftKey ? 50 : 400
    put(x + way[0] * step, y + way[1] * step, true)
  })
  const listed = element(
    'details',
    {},
    element('summary', {}, 'Choose in words instead'),
    element('div', { class: 'options' }, ...options.map((option, i) => element('label', {}, radios[i], element('span', { dir: 'auto' }, option.text)))),
  )
  for (const radio of radios)
    radio.addEventListener('change', () => {
      const [x, y] = radio.value.split(' ').map(Number)
      put(x, y, false)
    })
  const made = element('div', { class: 'place-answer' }, element('p', {}, 'Click the place on the picture.'), words, options.length > 0 ? listed : null)
  if (given.length > 0) {
    const [x, y] = given[0].split(' ').map(Number)
    put(x, y, false)
  }
  return {
    element: made,
    over,
    value: () => (at ? [at.join(' ')] : []),
    missing: () => (at ? null : 'Click a place on the picture.'),
    close() {
      closeAll(made)
      over.inert = true
    },
  }
}
