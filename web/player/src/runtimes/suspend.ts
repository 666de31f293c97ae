import { type Range, union } from '../completion'
import type { AnswerKnown, Answers } from '../memory'

/** What SCORM 1.2 lets a lesson keep in `cmi.suspend_data`: a CMIString4096 (Run-Time Environment, section 3.4.4). */
export const mostCharacters = 4096

/** The most that answers take of it; ranges have the rest. */
const mostForAnswers = 2400

/** The first version knew of no answers, and is what is written where there are none. */
const written = /^(w1|w2);([0-9a-z]{1,9});((?:[0-9a-z]{1,9}\.[0-9a-z]{1,9}(?:\.[0-9a-z]{1,9}\.[0-9a-z]{1,9})*)?)(?:;([^;]+))?$/

/** Stands among the answers once the survey was; no question has such a name. */
const surveyedMark = '!'

/** What is kept. */
export interface Kept {
  watched: Range[]
  answers: AnswerKnown[]
  /** Whether somebody said what they think of the lesson. */
  surveyed: boolean
}

/**
 * Watched ranges and answers as a short text: version, grid in milliseconds, for each range the gap before it and its length in grid units, then the answers.
 * Both share the room: answers are exact in tries and points, and what was answered is left out, the longest first, where it does not fit. Ranges are exact
 * while they fit; then the grid gets coarser, and a range only ever gets shorter, so that nothing counts as watched that was not.
 */
export function pack(watched: readonly Range[], lengthMs: number, answers: Answers = [], surveyed = false): string {
  const answered = [packAnswers(answers), ...(surveyed ? [surveyedMark] : [])].filter(Boolean).join('~')
  const ranges = union(watched, lengthMs)
  for (let grid = 1; ; grid = grid === 1 ? 100 : grid * 2) {
    let from = 0
    const numbers: string[] = []
    for (const [start, end] of ranges) {
      const first = Math.ceil(start / grid)
      const last = end === lengthMs ? Math.ceil(end / grid) : Math.floor(end / grid)
      if (last <= first) continue
      numbers.push((first - from).toString(36), (last - first).toString(36))
      from = last
    }
    const text = `${answered ? 'w2' : 'w1'};${grid.toString(36)};${numbers.join('.')}${answered && `;${answered}`}`
    if (text.length <= mostCharacters) return text
  }
}

/** Each: the question's name, the tries, the share in ten-thousandths, whether it was right; then the values, where there is room. */
function packAnswers(answers: Answers): string {
  const short = answers.map((a) => [encode(a.question), a.tries.toString(36), Math.round(a.share * 10_000).toString(36), a.right ? '1' : '0'].join('.'))
  const values = answers.map((a) => a.answer.map((value) => `.${encode(value)}`).join(''))
  const kept = new Set(answers.keys())
  const length = () => short.reduce((sum, text, i) => sum + text.length + 1 + (kept.has(i) ? values[i].length : 0), 0)
  for (const i of [...answers.keys()].sort((a, b) => values[b].length - values[a].length)) {
    if (length() <= mostForAnswers) break
    kept.delete(i)
  }
  return short.map((text, i) => text + (kept.has(i) ? values[i] : '')).join('~')
}

/** A text without the signs that part others: letters and digits stay one character. */
const encode = (text: string) => encodeURIComponent(text).replace(/[.~]/g, (c) => (c === '.' ? '%2E' : '%7E'))

/** What such a text says; undefined where another version, or something else altogether, wrote it. */
export function unpack(text: string, lengthMs: number): Kept | undefined {
  const read = written.exec(text)
  if (!read || (read[1] === 'w2') !== (read[4] !== undefined)) return undefined
  const unit = Number.parseInt(read[2], 36)
  const numbers = read[3] === '' ? [] : read[3].split('.').map((n) => Number.parseInt(n, 36) * unit)
  const ranges: Range[] = []
  let from = 0
  for (let i = 0; i + 1 < numbers.length; i += 2) {
    const start = from + numbers[i]
    from = start + numbers[i + 1]
    ranges.push([start, from])
  }
  const answered = (read[4] ?? '').split('~')
  return {
    watched: union(ranges, lengthMs),
    answers: unpackAnswers(answered.filter((one) => one !== '' && one !== surveyedMark)),
    surveyed: answered.includes(surveyedMark),
  }
}

function unpackAnswers(written: readonly string[]): AnswerKnown[] {
  const answers: AnswerKnown[] = []
  for (const one of written) {
    try {
      const [question, tries, share, right, ...values] = one.split('.')
      const known = {
        question: decodeURIComponent(question),
        tries: Number.parseInt(tries, 36),
        share: Number.parseInt(share, 36) / 10_000,
        right: right === '1',
        answer: values.map(decodeURIComponent),
      }
      if (known.tries > 0 && known.share >= 0 && known.share <= 1) answers.push(known)
    } catch {
      // Half of a sign was kept: that answer is given again.
    }
  }
  return answers
}
