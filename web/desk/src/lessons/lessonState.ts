import type { Schemas } from '../app/api'

export type Document = Schemas['LessonDocument']
export type Difference = Schemas['Difference']
type Lesson = Schemas['LessonView']

/** Something to go back to: a document of this page's own, or the number of a saved revision. */
export type Step = Document | number

/** A document that is to be saved; with the number of the earlier revision that it brings back, where it does. */
export interface Unsaved {
  document: Document
  restoredFrom?: number
}

/** A lesson being worked on, and how far what is here is saved. */
export interface LessonState {
  id: string
  /** As the server told it last. */
  lesson?: Lesson
  /** What is shown. */
  now?: Document
  /** The revision that the next save is based on. */
  revision: number
  /** The revision whose content that one has: another where it brought an earlier one back. */
  number: number
  /** What is still to be sent. */
  unsaved?: Unsaved
  /** What is under way. */
  sending?: Unsaved
  /** Somebody else was faster; nothing is sent until that is settled. */
  conflict: boolean
  /** What each side changed, once that is known. */
  difference?: Difference
  /** What the last save changed, in words. */
  changes: string
  back: Step[]
  on: Step[]
  /** Which saved revision a document of this page is. */
  numbers: ReadonlyMap<Document, number>
}

export type LessonEvent =
  | { what: 'fetched'; lesson: Lesson }
  | { what: 'edited'; document: Document }
  /** Undone or redone, to what a step led to. */
  | { what: 'stepped'; from: 'back' | 'on'; document: Document }
  /** A saved revision was read. */
  | { what: 'read'; document: Document; number: number }
  | { what: 'restored'; document: Document; number: number }
  | { what: 'sent' }
  | { what: 'saved'; saved: Schemas['Saved'] }
  /** What was sent did not come through, and is to be sent again. */
  | { what: 'failed' }
  | { what: 'clashed' }
  | { what: 'differs'; difference: Difference }
  /** A conflict ends: with one's own on top of theirs, or with theirs alone. */
  | { what: 'settled'; how: 'both' | 'theirs'; difference: Difference }

export const opened = (id: string): LessonState => ({ id, revision: 0, number: 0, conflict: false, changes: '', back: [], on: [], numbers: new Map() })

/** How far what is shown is saved. */
export const savingOf = (s: LessonState): 'saved' | 'unsaved' | 'conflict' => (s.conflict ? 'conflict' : s.unsaved || s.sending ? 'unsaved' : 'saved')

/** Whether what somebody else saved can be shown at once: nothing is unsaved here. */
const isIdle = (s: LessonState) => !s.unsaved && !s.sending && !s.conflict

export function next(s: LessonState, event: LessonEvent): LessonState {
  const named = (...of: [Document, number][]) => new Map([...s.numbers, ...of])
  const shown = (document: Document, restoredFrom?: number) => ({ now: document, unsaved: { document, restoredFrom } })
  switch (event.what) {
    case 'fetched': {
      const { document, history, revision } = event.lesson
      if (event.lesson.id !== s.id || revision <= s.revision || !isIdle(s)) return s
      const at = { revision, number: history.now, back: [...history.back], on: [...history.on] }
      return { ...s, ...at, lesson: event.lesson, now: document, numbers: named([document, history.now]) }
    }
    case 'edited':
      return s.now ? { ...s, ...shown(event.document), back: [...s.back, s.now], on: [] } : s
    case 'stepped': {
      if (!s.now) return s
      const to = event.from === 'back' ? 'on' : 'back'
      return { ...s, ...shown(event.document, s.numbers.get(event.document)), [event.from]: s[event.from].slice(0, -1), [to]: [...s[to], s.now] }
    }
    case 'read':
      return { ...s, numbers: named([event.document, event.number]) }
    case 'restored':
      return s.now ? { ...s, ...shown(event.document, event.number), back: [...s.back, s.now], on: [] } : s
    case 'sent':
      return { ...s, sending: s.unsaved, unsaved: undefined }
    case 'saved': {
      const { saved } = event
      const sent = s.sending
      if (!sent) return s
      const number = saved.changes ? (sent.restoredFrom ?? saved.revision) : s.number
      return {
        ...s,
        revision: saved.revision,
        number,
        sending: undefined,
        numbers: named([sent.document, number], [saved.document, number]),
        lesson: s.lesson && { ...s.lesson, revision: saved.revision, savedAt: saved.savedAt, length: saved.length },
        changes: saved.changes || s.changes,
        // What the server tidied is shown, unless the person has gone on meanwhile.
        now: s.unsaved ? s.now : saved.document,
      }
    }
    case 'failed':
    case 'clashed':
      return { ...s, unsaved: s.unsaved ?? s.sending, sending: undefined, conflict: event.what === 'clashed' }
    case 'differs':
      return s.conflict ? { ...s, difference: event.difference } : s
    case 'settled': {
      if (!s.now) return s
      const { theirDocument, merged, revision, at } = event.difference
      const settled = {
        ...s,
        conflict: false,
        difference: undefined,
        unsaved: undefined,
        revision,
        number: revision,
        numbers: named([theirDocument, revision]),
        lesson: s.lesson && { ...s.lesson, revision, savedAt: at },
        on: [],
      }
      // Undo leads back to what is not taken.
      return event.how === 'both'
        ? { ...settled, ...shown(merged), back: [...s.back, theirDocument] }
        : { ...settled, now: theirDocument, back: [...s.back, s.now] }
    }
  }
}
