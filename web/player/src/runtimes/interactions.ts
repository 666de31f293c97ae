import type { Interaction } from '../memory'

/** The longest fill-in or performance pattern, in characters (SCORM 1.2 Run-Time Environment, section 3.4.7, CMIFeedback). */
const longest = 255
/** Names of one character, as choices, sequences and pairs have them. */
const names = '0123456789abcdefghijklmnopqrstuvwxyz'

const types: Record<string, string> = {
  one: 'choice',
  several: 'choice',
  truth: 'true-false',
  text: 'fill-in',
  number: 'numeric',
  order: 'sequencing',
  match: 'matching',
  gaps: 'fill-in',
  place: 'performance',
  scale: 'likert',
  choice: 'choice',
  comment: 'fill-in',
}

/** What `cmi.interactions` says of an answer: element by element, in the order in which they are set. */
export function interactionElements(given: Interaction, latency: string, time: string): [element: string, value: string][] {
  const type = types[given.kind] ?? 'performance'
  const of = (id: string, among: readonly string[]) => names[among.indexOf(id)] ?? id
  const pattern = (values: readonly string[]): string => {
    switch (type) {
      case 'choice':
      case 'sequencing':
        return values.map((v) => of(v, given.options)).join(',')
      case 'matching':
        return values
          .map((pair) => pair.split(' '))
          .map(([a, b]) => `${of(a, given.options)}.${of(b, given.targets)}`)
          .join(',')
      case 'true-false':
        return values[0] === 'true' ? 't' : 'f'
      case 'numeric':
        return (values[0] ?? '').replaceAll(',', '.').replace(/[^0-9.+-]/g, '')
      default:
        return values.join(', ').slice(0, longest)
    }
  }
  const right = given.correct.length === 1 ? given.correct[0] : given.correct.map((values) => values[0] ?? '')
  const nothingRight = given.right === null
  return [
    // An identifier: letters, digits, hyphens and the like, without spaces.
    ['id', given.question.replace(/[^A-Za-z0-9_.-]/g, '_').slice(0, longest)],
    ['type', type],
    ['time', time],
    ...(nothingRight ? [] : [['correct_responses.0.pattern', pattern(right)] as [string, string]]),
    ['weighting', String(given.points)],
    ['student_response', pattern(given.answer)],
    ['result', nothingRight ? 'neutral' : given.right ? 'correct' : 'wrong'],
    ['latency', latency],
  ]
}
