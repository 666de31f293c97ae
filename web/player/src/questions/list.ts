import { element } from '../element'
import { isDone, scoreOf } from '../goal'
import type { Lesson, Question } from '../lesson'
import type { AnswerKnown } from '../memory'
import type { Player } from '../player'
import { clock } from '../time'

/** All questions of the lesson with what came of each; a result that can be saved or printed. */
export function list(player: Player, known: ReadonlyMap<string, AnswerKnown>, show: (question: Question) => void) {
  const { lesson } = player
  const marks = lesson.questions.map(() => element('span', { class: 'seen' }))
  const rows = lesson.questions.map((question, i) =>
    element(
      'li',
      {},
      element(
        'button',
        { type: 'button', click: () => show(question) },
        element('span', { class: 'at' }, question.at >= lesson.length ? 'at the end' : clock(question.at)),
        element('span', { class: 'title', dir: 'auto' }, question.text || 'Fill the gaps'),
        marks[i],
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
    for (const [i, question] of lesson.questions.entries()) marks[i].textContent = stateOf(question, known.get(question.id))
    const { raw, max } = scoreOf(lesson, [...known.values()])
    total.textContent = max > 0 ? `${Number(raw.toFixed(2))} of ${max} points` : ''
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

/** What a learner can show of it. */
function result({ lesson }: Player, known: ReadonlyMap<string, AnswerKnown>) {
  const { raw, max } = scoreOf(lesson, [...known.values()])
  return [
    element('h1', {}, lesson.title),
    element(
      'p',
      {},
      `${max > 0 ? `${Number(raw.toFixed(2))} of ${max} points, ` : ''}${known.size} of ${lesson.questions.length} questions answered, ${new Date().toLocaleString('en-GB')}`,
    ),
    element(
      'ol',
      {},
      ...lesson.questions.map((question) => {
        const answer = known.get(question.id)
        return element(
          'li',
          {},
          element('strong', {}, question.text || 'Fill the gaps'),
          element('br'),
          `Your answer: ${answer ? said(question, answer) : 'none'} (${stateOf(question, answer)}${answer && question.points > 0 ? `, ${Number((answer.share * question.points).toFixed(2))} of ${question.points} points` : ''})`,
        )
      }),
    ),
  ]
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
