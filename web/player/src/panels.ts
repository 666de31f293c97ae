import { element } from './element'
import { keep, kept } from './kept'

export interface Panel {
  name: string
  content: HTMLElement
}

/** What stands beside the picture, one at a time (ARIA's tabs pattern); a heading and no tabs where there is one alone. On paper all are there. */
export function panels(all: readonly Panel[]): HTMLElement | null {
  if (all.length === 0) return null
  if (all.length === 1) return element('section', { class: 'panels', 'aria-label': all[0].name }, element('h2', {}, all[0].name), all[0].content)
  const tabs = all.map(({ name }, i) => element('button', { type: 'button', role: 'tab', id: `wexel-tab-${i}`, 'aria-controls': `wexel-panel-${i}` }, name))
  const shown = all.map(({ name, content }, i) =>
    element(
      'div',
      { class: 'panel', role: 'tabpanel', id: `wexel-panel-${i}`, 'aria-labelledby': `wexel-tab-${i}` },
      element('h2', { class: 'on-paper' }, name),
      content,
    ),
  )
  const show = (chosen: number) => {
    for (const [i, tab] of tabs.entries()) {
      tab.setAttribute('aria-selected', String(i === chosen))
      tab.tabIndex = i === chosen ? 0 : -1
      shown[i].hidden = i !== chosen
    }
    keep('panel', all[chosen].name)
  }
  for (const [i, tab] of tabs.entries()) {
    tab.addEventListener('click', () => show(i))
    tab.addEventListener('keydown', (event) => {
      const to = { ArrowRight: i + 1, ArrowLeft: i - 1, Home: 0, End: all.length - 1 }[event.key]
      if (to === undefined) return
      event.preventDefault()
      const there = (to + all.length) % all.length
      show(there)
      tabs[there].focus()
    })
  }
  show(
    Math.max(
      0,
      all.findIndex(({ name }) => name === kept('panel')),
    ),
  )
  return element(
    'section',
    { class: 'panels', 'aria-label': all.map(({ name }) => name).join(', ') },
    element('div', { role: 'tablist', 'aria-label': 'What is shown' }, ...tabs),
    ...shown,
  )
}
