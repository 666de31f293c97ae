import { element } from './element'
import { learnerKey } from './memory'
import { now, type Player } from './player'
import { clock } from './time'
import { timeLink } from './timeLink'

const kinds = [
  ['outOfDate', 'This is out of date'],
  ['notUnderstood', 'I do not understand this'],
] as const

interface Note {
  at: number
  kind: string
  text: string
  answer: string | null
  answered: boolean
}

/** Notes to the author at a moment: one is sent, and what came of it stands below. */
export function notes(player: Player, address: string) {
  const { lesson, video } = player
  let at = 0
  const text = element('textarea', { rows: '3', maxlength: '1000', 'aria-label': 'In your words, if you like' })
  const radios = kinds.map(([value, words], i) => {
    const radio = element('input', { type: 'radio', name: 'wexel-note', value })
    radio.checked = i === 0
    return { radio, label: element('label', {}, radio, ' ', words) }
  })
  const legend = element('legend', {})
  const told = element('p', { role: 'status' })
  const list = element('ul', { class: 'notes' })
  const send = element('button', { type: 'submit' }, 'Send the note')
  const form = element('form', {}, element('fieldset', {}, legend, ...radios.map(({ label }) => label)), text, element('p', {}, send))
  const box = element('div', { class: 'box', hidden: true }, form, told, list)
  const button = element('button', { type: 'button', class: 'link', 'aria-expanded': 'false' })
  const name = () => {
    const words = `Something is wrong at ${clock(now(player))}`
    if (box.hidden && button.textContent !== words) button.textContent = words
  }
  for (const event of ['timeupdate', 'seeked']) video.addEventListener(event, name)
  name()
  button.addEventListener('click', () => {
    box.hidden = !box.hidden
    button.setAttribute('aria-expanded', String(!box.hidden))
    if (box.hidden) return name()
    // The moment is the one at which it was seen, however long the words take; meanwhile nothing runs away.
    at = now(player)
    video.pause()
    legend.textContent = `At ${clock(at)}`
    text.focus()
  })

  form.addEventListener('submit', async (event) => {
    event.preventDefault()
    send.disabled = true
    told.textContent = 'Sending …'
    const kind = radios.find(({ radio }) => radio.checked)?.radio.value
    const body = JSON.stringify({ learner: learnerKey(), kind, at: Math.round(at), text: text.value })
    try {
      const answer = await fetch(address, { method: 'POST', body, headers: { 'Content-Type': 'application/json' } })
      const sent = await answer.json().catch(() => null)
      told.textContent = answer.ok
        ? `Sent${lesson.details.author ? ` to ${lesson.details.author.name}` : ''}.`
        : (sent?.detail ?? sent?.title ?? 'The note was not taken. It is still here: send it again later.')
      if (answer.ok) {
        text.value = ''
        show(sent)
      }
    } catch {
      told.textContent = 'The server is not reached. The note is still here: send it again later.'
    }
    send.disabled = false
  })

  const show = (all: Note[]) => {
    list.replaceChildren(
      ...all.map((note) =>
        element(
          'li',
          {},
          timeLink(player, note.at),
          ` ${kinds.find(([kind]) => kind === note.kind)?.[1] ?? ''}${note.text ? `: ${note.text}` : ''}`,
          element('p', { class: 'fine' }, note.answer ? `Answer: ${note.answer}` : note.answered ? 'Seen to.' : 'Not answered yet.'),
        ),
      ),
    )
  }
  fetch(`${address}?learner=${encodeURIComponent(learnerKey())}`)
    .then(async (answer) => answer.ok && show(await answer.json()))
    .catch(() => undefined)
  return { button, box }
}
