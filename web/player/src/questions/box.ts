import { element, present } from '../element'
import { isDone } from '../goal'
import type { Question } from '../lesson'
import { type AnswerKnown, learnerKey } from '../memory'
import { clock } from '../time'
import { forms } from './forms'
import type { Form, Option } from './forms/form'

/** What came of an answer. */
export type Outcome = { later: true } | { later: false; right: boolean; share: number; says: readonly string[]; solution: string | null; known: AnswerKnown }

export interface Box {
  element: HTMLElement
  /** Lies over the picture while the question stands there; null for most kinds. */
  over: HTMLElement | null
  focus(): void
}

/** What a box can have done. */
export interface Does {
  answer(values: string[], took: number): Promise<Outcome>
  goOn(): void
  again(): void
}

const ordinal = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth']

/** One question as it stands over the picture: asked, answered, and what is said to the answer. */
export function box(question: Question, number: string, known: AnswerKnown | undefined, does: Does): Box {
  const headline = element('p', { class: 'fine' })
  const title = element('h2', { tabindex: '-1', dir: 'auto', id: `wexel-ask-${question.id}` }, titleOf(question))
  const missing = element('p', { class: 'missing', role: 'alert' })
  const said = element('div', { class: 'said', role: 'status' })
  const moved = element('p', { class: 'spoken', role: 'status' })
  const place = element('div', { class: 'form' })
  const hints = element('div', { class: 'hints', role: 'status' })
  const ends = element('p', { class: 'ends' })
  const made = element(
    'section',
    { class: `ask ask-${question.form.kind}`, role: 'dialog', 'aria-labelledby': title.id },
    headline,
    title,
    // What it shows is part of what is asked, and said there.
    question.picture ? element('img', { class: 'shown', src: question.picture, alt: '', loading: 'lazy' }) : null,
    element('form', { submit: (event) => send(event) }, place, missing, said, hints, ends),
    moved,
  )
  const over = element('div', { class: 'over-picture' })
  // The page's keys are not meant while a question is answered.
  for (const part of [made, over]) part.addEventListener('keydown', (event) => byKey(event))
  function byKey(event: KeyboardEvent) {
    event.stopPropagation()
    if (event.key === 'Escape' && (!question.must || known)) does.goOn()
  }

  let began = performance.now()
  let hintsGiven = 0
  const triesLeft = () => (question.tries === 0 ? null : question.tries - (known?.tries ?? 0))

  const link = (words: string, click: () => void) => element('button', { type: 'button', class: 'link', click }, words)
  const watchAgain = () => question.again !== null && link(`Watch again from ${clock(question.again)}`, does.again)

  let form = ask()

  function ask(): Form {
    began = performance.now()
    const asked = forms[question.form.kind]({
      form: question.form,
      name: `wexel-${question.id}`,
      given: known?.answer ?? [],
      options: ordered(question),
      say(text) {
        moved.textContent = text
      },
    })
    place.replaceChildren(asked.element)
    over.replaceChildren(...present(asked.over))
    missing.textContent = ''
    said.replaceChildren()
    const attempt = (known?.tries ?? 0) + 1
    headline.textContent = present(
      number,
      question.points > 0 ? `counts ${points(question.points)}` : 'counts nothing',
      attempt > 1 ? `${ordinal[attempt - 1] ?? `${attempt}th`} try` : question.tries > 1 && `${question.tries} tries`,
    ).join(' · ')
    ends.replaceChildren(
      ...present(
        element('button', { type: 'submit' }, 'Answer'),
        question.hints.length > hintsGiven && link('A hint', giveHint),
        watchAgain(),
        (!question.must || known) && link(known ? 'Go on' : 'Not now', does.goOn),
      ),
    )
    return asked
  }

  function giveHint(this: unknown) {
    hints.append(element('p', { dir: 'auto' }, question.hints[hintsGiven]))
    hintsGiven++
    if (hintsGiven >= question.hints.length) [...ends.querySelectorAll('button')].find((b) => b.textContent === 'A hint')?.remove()
    title.focus()
  }

  async function send(event: Event) {
    event.preventDefault()
    missing.textContent = form.missing() ?? ''
    if (missing.textContent) return
    const button = ends.querySelector('button')
    if (button) button.disabled = true
    const outcome = await does.answer(form.value(), Math.round(performance.now() - began))
    if (!outcome.later) known = outcome.known
    show(outcome)
  }

  /** What is said to the answer; the form stays, closed. */
  function show(outcome: Outcome) {
    form.close()
    hints.replaceChildren()
    said.replaceChildren(
      ...(outcome.later
        ? [element('p', {}, 'There is no line to the server. Your answer is kept in this browser, and is sent when there is one.')]
        : present(
            element('p', { class: outcome.right ? 'verdict right' : 'verdict wrong' }, verdict(outcome)),
            ...outcome.says.map((text) => element('p', { dir: 'auto' }, text)),
            outcome.solution !== null && element('p', {}, 'The right answer: ', element('bdi', {}, outcome.solution)),
          )),
    )
    const again = !outcome.later && !isDone(known, question.tries)
    const left = triesLeft()
    ends.replaceChildren(
      ...present(
        element('button', { type: 'button', click: does.goOn }, 'Go on'),
        again && link(left === null ? 'Try again' : `Try again: ${left} ${left === 1 ? 'try' : 'tries'} left`, retry),
        !outcome.later && !outcome.right && watchAgain(),
      ),
    )
    ends.querySelector('button')?.focus()
  }

  function retry() {
    form = ask()
    focus()
  }
  const focus = () => title.focus({ preventScroll: false })

  if (isDone(known, question.tries) && known) {
    form.close()
    headline.textContent = `${number} · answered`
    said.replaceChildren(
      element('p', { class: known.right ? 'verdict right' : 'verdict wrong' }, known.right ? 'Your answer was right.' : 'Your answer was not right.'),
    )
    ends.replaceChildren(...present(element('button', { type: 'button', click: does.goOn }, 'Go on'), watchAgain()))
  }
  return { element: made, over: question.form.kind === 'place' ? over : null, focus }
}

/** What is asked; a text with gaps may say it by itself. */
export const titleOf = ({ text, form }: Question) => text || (form.kind === 'gaps' ? 'Fill the gaps' : 'A question')

const points = (count: number) => `${count} ${count === 1 ? 'point' : 'points'}`

function verdict({ right, share }: { right: boolean; share: number }) {
  if (right) return '✓ Right.'
  return share > 0 ? `Partly right: ${Math.round(share * 100)} %.` : '✗ Not right.'
}

/** The options in this learner's own order, which is always the same for them. */
function ordered({ id, form }: Question): readonly Option[] {
  const options = form.options ?? []
  if (!form.shuffle) return options
  const mixed = (option: Option) => {
    let hash = 2_166_136_261
    for (const c of `${learnerKey()}${id}${option.id}`) hash = Math.imul(hash ^ (c.codePointAt(0) ?? 0), 16_777_619)
    return (hash ^ (hash >>> 15)) >>> 0
  }
  return [...options].sort((a, b) => mixed(a) - mixed(b))
}
