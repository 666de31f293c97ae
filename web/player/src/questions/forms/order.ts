import { element } from '../../element'
import type { Form, Making, Option } from './form'
import { closeAll } from './form'

/** Lines that are moved up and down: by buttons, or by dragging. */
export function order({ options, given, say }: Making): Form {
  const known = given.map((id) => options.find((o) => o.id === id))
  let lines: Option[] = known.length === options.length && known.every((o) => o !== undefined) ? (known as Option[]) : [...options]
  const list = element('ol', { class: 'order' })
  let moved = given.length > 0
  let dragged: Option | undefined
  const place = (option: Option, to: number) => {
    if (to < 0 || to >= lines.length) return
    lines = lines.filter((l) => l !== option)
    lines.splice(to, 0, option)
    moved = true
    draw()
    say(`${option.text}, now ${to + 1} of ${lines.length}.`)
  }
  const step = (option: Option, by: number, words: string) =>
    element('button', { type: 'button', 'aria-label': `${option.text}: ${words}`, 'data-by': String(by), click: () => move(option, by) }, by < 0 ? '↑' : '↓')
  const move = (option: Option, by: number) => {
    place(option, lines.indexOf(option) + by)
    // The buttons were made anew: whoever presses one goes on pressing it.
    const row = list.children[lines.indexOf(option)]
    const same = row?.querySelector<HTMLButtonElement>(`[data-by="${by}"]:not(:disabled)`) ?? row?.querySelector<HTMLButtonElement>('button:not(:disabled)')
    same?.focus()
  }
  function draw() {
    list.replaceChildren(
      ...lines.map((option, i) => {
        const row = element('li', { draggable: 'true' }, element('span', { dir: 'auto' }, option.text), step(option, -1, 'up'), step(option, 1, 'down'))
        const [up, down] = row.querySelectorAll('button')
        up.disabled = i === 0
        down.disabled = i === lines.length - 1
        row.addEventListener('dragstart', () => {
          dragged = option
        })
        row.addEventListener('dragover', (event) => event.preventDefault())
        row.addEventListener('drop', (event) => {
          event.preventDefault()
          if (dragged) place(dragged, i)
        })
        return row
      }),
    )
  }
  draw()
  return {
    element: list,
    value: () => lines.map((l) => l.id),
    missing: () => (moved ? null : 'Move the lines into their order first; if it is right as it is, move one and back.'),
    close() {
      closeAll(list)
      for (const row of list.children) row.removeAttribute('draggable')
    },
  }
}
