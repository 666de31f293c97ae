import { element } from '../element'
import { isDone, scoreOf } from '../goal'
import type { Lesson, Question } from '../lesson'
import type { AnswerKnown } from '../memory'
import type { Player } from '../player'
import { clock } from '../time'
import { titleOf } from './box'

/** All questions of the lesson with what came of each; a result that can be saved or printed. */
export function list(player: Player, known: ReadonlyMap<string, AnswerKnown>, show: (question: Question) => void) {
  const { lesson } = player
  const marks = new Map(lesson.questions.map((question) => [question, element('span', { class: 'seen' })]))
  const rows = lesson.questions.map((question) =>
    element(
      'li',
      {},
      element(
        'button',
        { type: 'button', click: () => show(question) },
        element('span', { class: 'at' }, question.at >= lesson.length ? 'at the end' : clock(question.at)),
        element('span', { class: 'title', dir: 'auto' }, titleOf(question)),
        marks.get(question),
      ),
    ),
  )
  const total = element('p', { class: 'fine' })
  const onPaper = element('section', { class: 'result' })
  const made = element(
    'div',
    { class: 'questions' },
    element('ol', {}, ...rows),
    total,
    element(
      'p',
      { class: 'ends' },
      element('button', { type: 'button', class: 'link', click: () => save(lesson, onPaper) }, 'Save the result'),
      element('button', { type: 'button', class: 'link', click: print }, 'Print it'),
    ),
    onPaper,
  )
  function tell() {
    for (const [question, mark] of marks) {
      mark.textContent = stateOf(question, known.get(question.id))
      // One that this learner is not asked.
      if (!lesson.questions.includes(question)) mark.closest('li')?.remove()
    }
    const { raw, max } = scoreOf(lesson, [...known.values()])
    total.textContent = max > 0 ? `${short(raw)} of ${max} points` : ''
    onPaper.replaceChildren(...result(player, known))
  }
  function print() {
    document.documentElement.classList.add('print-result')
    window.print()
    document.documentElement.classList.remove('print-result')
  }
  return { element: made, tell }
}

function stateOf(question: Question, answer: AnswerKnown | undefined): string {
  if (!answer) return question.must ? 'to be answered' : 'not yet'
  if (answer.right) return 'right'
  const some = answer.share > 0 ? 'partly right' : 'not right'
  return isDone(answer, question.tries) ? some : `${some}, can be tried again`
}

const short = (points: number) => Number(points.toFixed(2))

/** What a learner can show of it. */
function result({ lesson }: Player, known: ReadonlyMap<string, AnswerKnown>) {
  const { raw, max } = scoreOf(lesson, [...known.values()])
  const points = max > 0 ? `${short(raw)} of ${max} points, ` : ''
  const at = new Date().toLocaleString('en-GB')
  return [
    element('h1', {}, lesson.title),
    element('p', {}, `${points}${known.size} of ${lesson.questions.length} questions answered, ${at}`),
    element('ol', {}, ...lesson.questions.map((question) => element('li', {}, element('strong', {}, titleOf(question)), element('br'), line(question)))),
  ]

  function line(question: Question) {
    const answer = known.get(question.id)
    if (!answer) return 'Your answer: none'
    const reached = question.points > 0 ? `, ${short(answer.share * question.points)} of ${question.points} points` : ''
    return `Your answer: ${said(question, answer)} (${stateOf(question, answer)}${reached})`
  }
}

/** An answer in the words that the learner saw. */
function said({ form }: Question, { answer }: AnswerKnown): string {
  const words = new Map([...(form.options ?? []), ...(form.targets ?? [])].map((o) => [o.id, o.text]))
  const word = (id: string) => words.get(id) ?? id
  if (form.kind === 'place') return answer.map((at) => words.get(at) ?? 'a place on the picture').join(', ')
  if (form.kind === 'match') return answer.map((pair) => pair.split(' ').map(word).join(' – ')).join('; ')
  return answer.map(word).join(form.kind === 'order' ? ' → ' : '; ')
}

function save(lesson: Lesson, onPaper: HTMLElement) {
  const page = document.implementation.createHTMLDocument(lesson.title)
  page.documentElement.lang = lesson.language
  page.head.append(element('meta', { charset: 'utf-8' }))
  page.body.append(...[...onPaper.children].map((child) => child.cloneNode(true)))
  const address = URL.createObjectURL(new Blob([`<!doctype html>\n${page.documentElement.outerHTML}`], { type: 'text/html' }))
  const name = lesson.title.replace(/[^\p{L}\p{N} -]+/gu, '').trim() || 'lesson'
  const link = element('a', { href: address, download: `${name}, result.html` })
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 60_000)
}
