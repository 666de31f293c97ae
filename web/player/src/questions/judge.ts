import type { Key } from '../lesson'

/** Judges answers where no server does, as Wexel.Core.Scoring has it; both are held to tests/vectors/scoring.json. */
export type Judge = Key['judge']
type Response = Judge['responses'][number]
type Shape = NonNullable<Response['areas']>['entries'][number]['shape']
type Place = { x: number; y: number }

export interface Grade {
  share: number
  right: boolean
  replies: string[]
}

const four = (value: number) => Math.round(value * 10_000) / 10_000

/** The share of the points that is left to a try. */
export const afterTries = (share: number, perCent: number, attempt: number) => four(share * Math.max(0, 1 - (perCent / 100) * (attempt - 1)))

export function judge(key: Judge, answer: readonly string[]): Grade {
  let sum = 0
  const replies: string[] = []
  for (const [i, response] of key.responses.entries()) {
    const given = key.responses.length === 1 ? answer : answer.slice(i, i + 1).filter((v) => v !== '')
    const taken = given.map((value) => takenFor(key, response, value))
    const most = mostOf(response)
    sum += most > 0 ? score(response, taken) / most : 0
    const named = new Set(taken.map((value) => nameOf(response, value)))
    for (const value of named) replies.push(...(key.replies ?? []).filter((r) => r.to === value).map((r) => r.says))
  }
  const share = four(Math.min(1, Math.max(0, sum / Math.max(1, key.responses.length))))
  const counted = key.allOrNothing && share < 1 ? 0 : share
  return { share: counted, right: counted >= 1, replies }
}

function takenFor(key: Judge, response: Response, value: string): string {
  if (key.text) return takenForText(key.text, value, response.mapping?.entries.map((e) => e.key) ?? response.correct)
  if (key.number && response.correct.length === 1) return takenForNumber(key.number, value, response.correct[0])
  return value
}

const bounded = ({ lower, upper }: { lower: number | null; upper: number | null }, sum: number) =>
  Math.max(lower ?? -Infinity, Math.min(upper ?? Infinity, sum))

function mostOf(response: Response): number {
  const map = response.areas ?? response.mapping
  if (!map) return 1
  const values = map.entries.map((e) => e.value)
  return bounded(map, response.cardinality === 'single' ? Math.max(0, ...values) : values.filter((v) => v > 0).reduce((a, b) => a + b, 0))
}

function score(response: Response, given: readonly string[]): number {
  const { areas, mapping, correct, baseType } = response
  if (areas) {
    if (given.length === 0) return 0
    const hit = given.map((value) => areaOf(response, value))
    const once = hit.filter((area, i) => area < 0 || hit.indexOf(area) === i)
    return bounded(
      areas,
      once.reduce((sum, area) => sum + (area < 0 ? areas.default : areas.entries[area].value), 0),
    )
  }
  if (mapping) {
    if (given.length === 0) return 0
    const once = given.filter((value, i) => given.findIndex((other) => same(baseType, other, value)) === i)
    return bounded(
      mapping,
      once.reduce((sum, value) => sum + (mapping.entries.find((e) => same(baseType, e.key, value))?.value ?? mapping.default), 0),
    )
  }
  if (response.places)
    return correct.length === 0 ? 0 : correct.filter((right, i) => given[i] !== undefined && same(baseType, right, given[i])).length / correct.length
  return matches(response, given) ? 1 : 0
}

function matches({ correct, cardinality, baseType }: Response, given: readonly string[]): boolean {
  if (given.length === 0 || given.length !== correct.length) return false
  if (cardinality !== 'multiple') return correct.every((right, i) => same(baseType, right, given[i]))
  const left = [...correct]
  return given.every((value) => {
    const found = left.findIndex((right) => same(baseType, right, value))
    if (found < 0) return false
    left.splice(found, 1)
    return true
  })
}

function same(type: Response['baseType'], a: string, b: string): boolean {
  if (a === b) return true
  if (type === 'float') return a !== '' && Number(a) === Number(b)
  if (type === 'pair') return a.split(' ').reverse().join(' ') === b
  if (type !== 'point') return false
  const [p, q] = [placeOf(a), placeOf(b)]
  return p !== null && q !== null && p.x === q.x && p.y === q.y
}

function placeOf(text: string): Place | null {
  const [x, y, more] = text.split(' ').filter(Boolean).map(Number)
  return more === undefined && Number.isFinite(x) && Number.isFinite(y) ? { x, y } : null
}

function areaOf({ areas }: Response, value: string): number {
  const place = placeOf(value)
  return place && areas ? areas.entries.findIndex((e) => contains(e.shape, place)) : -1
}

const nameOf = (response: Response, value: string) => {
  const area = response.areas ? areaOf(response, value) : -1
  return area < 0 ? value : String(area)
}

export function contains({ kind, points }: Shape, { x, y }: Place): boolean {
  if (points.length < 2) return false
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)]
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  if (x < left || x > right || y < top || y > bottom) return false
  if (kind === 'rectangle') return true
  if (kind === 'polygon') return inPolygon(points, { x, y })
  const [across, down] = [(right - left) / 2, (bottom - top) / 2]
  if (across <= 0 || down <= 0) return true
  return ((x - (left + right) / 2) / across) ** 2 + ((y - (top + bottom) / 2) / down) ** 2 <= 1 + 1e-9
}

function inPolygon(points: readonly Place[], { x, y }: Place): boolean {
  let inside = false
  for (const [i, a] of points.entries()) {
    const b = points[(i + 1) % points.length]
    const side = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x)
    const between = x >= Math.min(a.x, b.x) && x <= Math.max(a.x, b.x) && y >= Math.min(a.y, b.y) && y <= Math.max(a.y, b.y)
    if (Math.abs(side) <= 1e-9 && between) return true
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}

const shortestForgiven = 5

function takenForText(rule: NonNullable<Judge['text']>, typed: string, accepted: readonly string[]): string {
  const plain = (text: string) => {
    const straight = text.normalize('NFC').replace(/[\u2018\u2019\u02bc]/g, "'")
    const spaced = rule.spaces ? straight : straight.replace(/[\s\u00a0\u202f]+/g, ' ').replace(/^ +| +$/g, '')
    return rule.capitals ? spaced : spaced.toLowerCase()
  }
  const given = plain(typed)
  return (
    accepted.find((a) => a === typed) ??
    accepted.find((a) => plain(a) === given) ??
    (rule.slips ? accepted.find((a) => plain(a).length >= shortestForgiven && isOneSlip(plain(a), given)) : undefined) ??
    typed
  )
}

/** Whether two different texts are one slip apart. */
function isOneSlip(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false
  let start = 0
  while (start < a.length && start < b.length && a[start] === b[start]) start++
  const [restA, restB] = [a.slice(start), b.slice(start)]
  if (a.length > b.length) return restA.slice(1) === restB
  if (a.length < b.length) return restA === restB.slice(1)
  if (restA === '') return false
  return restA.slice(1) === restB.slice(1) || (restA.length > 1 && restA[0] === restB[1] && restA[1] === restB[0] && restA.slice(2) === restB.slice(2))
}

function takenForNumber(rule: NonNullable<Judge['number']>, typed: string, right: string): string {
  const value = Number(right)
  const off = (rule.perCent ? (Math.abs(value) * rule.within) / 100 : rule.within) + Math.abs(value) * 1e-9
  return readings(typed, rule.unit).some((r) => Math.abs(r - value) <= off) ? right : typed
}

/** The numbers that a typed text may mean. */
function readings(typed: string, unit: string | null): number[] {
  let text = typed.replaceAll('\u2212', '-').replace(/[\s\u00a0\u202f]+/g, '')
  const end = (unit ?? '').replace(/[\s\u00a0\u202f]+/g, '').toLowerCase()
  if (end && text.toLowerCase().endsWith(end)) text = text.slice(0, -end.length)
  if (!/^[+-]?[0-9.,]*[0-9][0-9.,]*$/.test(text)) return []
  const [points, commas] = [text.split('.').length - 1, text.split(',').length - 1]
  const texts = (() => {
    if (commas === 0) return points <= 1 ? [text] : [text.replaceAll('.', '')]
    if (points === 0 && commas === 1) {
      const decimal = text.replace(',', '.')
      return /^[+-]?[1-9][0-9]{0,2},[0-9]{3}$/.test(text) ? [decimal, text.replace(',', '')] : [decimal]
    }
    if (points === 0) return [text.replaceAll(',', '')]
    // Where both stand in it, the last one comes before the decimals.
    return text.lastIndexOf('.') > text.lastIndexOf(',') ? [text.replaceAll(',', '')] : [text.replaceAll('.', '').replace(',', '.')]
  })()
  return texts.map(Number).filter(Number.isFinite)
}
