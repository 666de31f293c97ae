import type { Schemas } from '../app/api'
import { type Changes, type Cue, pieces, withText } from './cues'

type Look = Schemas['TextLook']

/** Something in the captions that somebody should look at. */
export interface Note {
  /** What names it where it is left as it is. */
  key: string
  cue: string
  at: number
  /** What it is one of: all of one are mended at once. */
  kind: string
  /** What is wrong, a sentence. */
  sentence: string
  /** What mends it, a verb and what it changes; none where only a person can. */
  mends: { words: string; changes: (cues: Cue[]) => Changes }[]
}

const kinds: Record<string, [one: string, several: string]> = {
  tooFast: ['too fast', 'too fast'],
  tooShort: ['too short', 'too short'],
  tooLong: ['stays too long', 'stay too long'],
  lineTooLong: ['long line', 'long lines'],
  tooManyLines: ['of too many lines', 'of too many lines'],
  badLineBreak: ['bad line end', 'bad line ends'],
  overlaps: ['overlaps', 'overlap'],
  gapTooShort: ['without a gap', 'without a gap'],
  overCut: ['over a cut', 'over a cut'],
  houseWord: ['name', 'names'],
  capital: ['capital', 'capitals'],
  spelling: ['unknown word', 'unknown words'],
  unsure: ['unsure', 'unsure'],
}

/** How many there are of a kind, in words: 3 too fast. */
export const inWords = (kind: string, count: number) => `${count} ${kinds[kind]?.[count === 1 ? 0 : 1] ?? kind}`

/** A caption that a mend adds gets a name that none has yet. */
const named = (changes: Changes): Changes => ({
  ...changes,
  set: changes.set.map((c) => (c.id.endsWith('+') ? { ...c, id: crypto.randomUUID() } : c)),
})

/** Where a word stands in a text: where it stood, or else the first place that is the whole word; -1 for none. */
function placeOf(word: string, text: string, at: number): number {
  const isLetter = (c: string | undefined) => c !== undefined && /[\p{L}\p{N}]/u.test(c)
  const stands = (place: number) => text.startsWith(word, place) && !isLetter(text[place - 1]) && !isLetter(text[place + word.length])
  if (stands(at)) return at
  for (let place = text.indexOf(word); place >= 0; place = text.indexOf(word, place + 1)) if (stands(place)) return place
  return -1
}

/** A word written otherwise where it still stands. */
function rewritten(cues: Cue[], { cue: id, at, written }: Schemas['Correction'], instead: string): Changes {
  const cue = cues.find((c) => c.id === id)
  const place = cue ? placeOf(written, cue.text, at) : -1
  if (!cue || place < 0) return { set: [], removed: [] }
  return { set: [withText(cue, cue.text.slice(0, place) + instead + cue.text.slice(place + written.length))], removed: [] }
}

const why = { houseWord: 'as in the word list', capital: 'with a capital', spelling: 'in no dictionary' }

/** The words that the engine was not sure of and that still stand as it heard them. */
const unsureNotes = (cues: Cue[], unsure: Schemas['UnsureWord'][]): Note[] =>
  unsure.length === 0
    ? []
    : cues.flatMap((cue) =>
        pieces(cue, unsure).flatMap(({ text, confidence }) =>
          confidence === undefined
            ? []
            : [
                {
                  key: `${cue.id}:${text}`,
                  cue: cue.id,
                  at: cue.span.start,
                  kind: 'unsure',
                  sentence: `“${text}” was heard with ${Math.round(confidence * 100)} % certainty.`,
                  mends: [],
                },
              ],
        ),
      )

const nothing: Look = { findings: [], corrections: [], left: [], noSpelling: null }

const same = (a: Cue | undefined, b: Cue | undefined) => a === b || (a?.text === b?.text && a?.span.start === b?.span.start && a?.span.end === b?.span.end)

/**
 * All notes of a look, but for what somebody left, in the order of the captions. What breaks a guideline is mended by captions as they were
 * looked at: where one of them is another by now, it is not a note before it was looked at again.
 * @param lookedAt The captions that the look is of.
 */
export function notesOf(look: Look | undefined, cues: Cue[], unsure: Schemas['UnsureWord'][] = [], lookedAt = cues): Note[] {
  const { left: leftOnes, ...found } = look ?? nothing
  const left = new Set(leftOnes)
  const starts = new Map(cues.map((c) => [c.id, c.span.start]))
  const [now, then] = [cues, lookedAt].map((all) => new Map(all.map((c) => [c.id, c])))
  const stands = (id: string) => id.endsWith('+') || same(now.get(id), then.get(id))
  const standing = found.findings.filter((f) => [f.cue, ...(f.mend?.set.map((c) => c.id) ?? []), ...(f.mend?.removed ?? [])].every(stands))
  const findings = standing.map((f): Note => {
    const { mend, mendWords } = f
    return {
      key: `${f.cue}:${f.break}`,
      cue: f.cue,
      at: f.at,
      kind: f.break,
      sentence: f.sentence,
      mends: mend && mendWords ? [{ words: mendWords, changes: () => named({ set: [...mend.set], removed: [...mend.removed] }) }] : [],
    }
  })
  const still = found.corrections.filter((c) => lookedAt === cues || placeOf(c.written, now.get(c.cue)?.text ?? '', c.at) >= 0)
  const corrections = still.map(
    (c): Note => ({
      key: `${c.cue}:${c.written}`,
      cue: c.cue,
      at: starts.get(c.cue) ?? 0,
      kind: c.kind,
      sentence: c.kind === 'spelling' ? `“${c.written}” is ${why.spelling}.` : `“${c.instead[0]}” ${why[c.kind]}?`,
      mends: c.instead.map((instead) => ({
        words: c.kind === 'spelling' ? `“${instead}”` : 'Take',
        changes: (now) => rewritten(now, c, instead),
      })),
    }),
  )
  return [...findings, ...corrections, ...unsureNotes(cues, unsure)].filter((n) => !left.has(n.key) && starts.has(n.cue)).sort((a, b) => a.at - b.at)
}

/** The notes of each caption, by its name. */
export function notesByCue(notes: Note[]): Map<string, Note[]> {
  const by = new Map<string, Note[]>()
  for (const note of notes) by.set(note.cue, [...(by.get(note.cue) ?? []), note])
  return by
}

/** The first mend of each note, one on top of the other; of two that want to change one caption otherwise the first. */
export function mended(cues: Cue[], notes: Note[]): Changes {
  const set = new Map<string, Cue>()
  const once = new Set<string>()
  let now = cues
  for (const note of notes) {
    const mend = note.mends[0]
    // Guidelines change the whole caption, as it was when it was looked at.
    const whole = !['houseWord', 'capital', 'spelling'].includes(note.kind)
    if (!mend || (whole && once.has(note.cue))) continue
    const made = mend.changes(now)
    for (const cue of made.set) set.set(cue.id, cue)
    now = now.map((c) => set.get(c.id) ?? c)
    once.add(note.cue)
  }
  return { set: [...set.values()], removed: [] }
}
