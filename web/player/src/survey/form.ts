import { element } from '../element'
import type { Lesson } from '../lesson'
import { asked } from './items'

type Survey = NonNullable<Lesson['survey']>

interface Does {
  /** Gives what keeps it from being taken, or null. */
  send(values: Record<string, string[]>): Promise<string | null>
  close(): void
}

export const promise = (named: boolean) => (named ? 'Your name is sent with what you say.' : 'It is anonymous: nobody is told who said what, nor when.')

/** A survey as it stands over the picture. */
export function form(survey: Survey, does: Does) {
  const items = survey.items.map((item) => ({ id: item.id, ...asked(item) }))
  const said = element('p', { class: 'missing', role: 'alert' })
  const title = element('h2', { tabindex: '-1', dir: 'auto', id: 'wexel-survey' }, survey.title || 'What did you think of this lesson?')
  const button = element('button', { type: 'submit' }, 'Send')
  async function send(event: Event) {
    event.preventDefault()
    const values = Object.fromEntries(items.map((i) => [i.id, i.value()] as const).filter(([, given]) => given.length > 0))
    said.textContent = Object.keys(values).length === 0 ? 'Nothing is filled in yet.' : ''
    if (said.textContent) return
    button.disabled = true
    const refused = await does.send(values)
    button.disabled = false
    if (refused) said.textContent = refused
    else thank()
  }
  function thank() {
    const close = element('button', { type: 'button', click: does.close }, 'Close')
    made.replaceChildren(title, element('p', { role: 'status' }, 'Thank you. It was sent.'), element('p', { class: 'ends' }, close))
    close.focus()
  }
  const made = element(
    'section',
    { class: 'ask ask-survey', role: 'dialog', 'aria-labelledby': title.id },
    element('p', { class: 'fine' }, `${promise(survey.named)} Nothing has to be answered.`),
    title,
    element(
      'form',
      { submit: send },
      ...items.map((i) => i.element),
      said,
      element('p', { class: 'ends' }, button, element('button', { type: 'button', class: 'link', click: does.close }, 'Not now')),
    ),
  )
  made.addEventListener('keydown', (event) => {
    event.stopPropagation()
    if (event.key === 'Escape') does.close()
  })
  return { element: made, focus: () => title.focus({ preventScroll: true }) }
}
