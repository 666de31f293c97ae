import { describe, expect, it } from 'vitest'
import { type Difference, type Document, type LessonEvent, type LessonState, next, opened, savingOf } from './lessonState'

const document = (title: string) => ({ title }) as Document
const lesson = (revision: number, title: string, back: number[] = [], on: number[] = [], now = revision) =>
  ({ id: 'l', revision, document: document(title), savedAt: '12:00', length: 60_000, history: { now, back, on } }) as never
const saved = (revision: number, title: string, changes = 'title') =>
  ({ what: 'saved', saved: { revision, savedAt: '12:01', length: 50_000, changes, document: document(title) } }) as LessonEvent
const difference = (revision: number) => ({ revision, at: '12:02', theirDocument: document('theirs'), merged: document('both') }) as unknown as Difference

const told = (...events: LessonEvent[]): LessonState => events.reduce(next, opened('l'))
const fetched: LessonEvent = { what: 'fetched', lesson: lesson(3, 'three', [1, 2]) }
const edited = (title: string): LessonEvent => ({ what: 'edited', document: document(title) })
const titles = (steps: LessonState['back']) => steps.map((s) => (typeof s === 'number' ? s : s.title))

describe('A lesson that is fetched', () => {
  it('is shown with what there is to go back to', () => {
    const s = told(fetched)
    expect([s.now?.title, s.revision, s.number, s.back, savingOf(s)]).toEqual(['three', 3, 3, [1, 2], 'saved'])
  })
  it('came too late where another one was opened', () => {
    expect(next(opened('m'), fetched).now).toBeUndefined()
  })
  it('replaces what is here where somebody else saved, and nothing is unsaved', () => {
    const again: LessonEvent = { what: 'fetched', lesson: lesson(4, 'four') }
    expect(told(fetched, again).now?.title).toBe('four')
    for (const before of [[edited('mine')], [edited('mine'), { what: 'sent' }], [edited('mine'), { what: 'sent' }, { what: 'clashed' }]] as LessonEvent[][])
      expect(told(fetched, ...before, again).now?.title).toBe('mine')
    expect(told(fetched, { what: 'fetched', lesson: lesson(3, 'the same') }).now?.title).toBe('three')
  })
})

describe('An edit', () => {
  it('shows at once, is unsaved until it is saved, and can be undone', () => {
    const s = told(fetched, edited('mine'))
    expect([s.now?.title, s.unsaved?.document.title, savingOf(s), titles(s.back)]).toEqual(['mine', 'mine', 'unsaved', [1, 2, 'three']])
    const sending = next(s, { what: 'sent' })
    expect([sending.unsaved, sending.sending?.document.title, savingOf(sending)]).toEqual([undefined, 'mine', 'unsaved'])
    const done = next(sending, saved(4, 'tidied'))
    expect([done.now?.title, done.revision, done.number, savingOf(done), done.changes]).toEqual(['tidied', 4, 4, 'saved', 'title'])
    expect([done.lesson?.revision, done.lesson?.length]).toEqual([4, 50_000])
  })
  it('made while another is saved is shown and goes next', () => {
    const s = told(fetched, edited('one'), { what: 'sent' }, edited('two'), saved(4, 'tidied one'))
    expect([s.now?.title, s.unsaved?.document.title, s.revision, savingOf(s)]).toEqual(['two', 'two', 4, 'unsaved'])
  })
  it('that changes nothing makes no revision', () => {
    const s = told(fetched, edited('mine'), { what: 'sent' }, saved(3, 'three', ''))
    expect([s.revision, s.number, s.changes]).toEqual([3, 3, ''])
  })
  it('before anything is there is none', () => expect(told(edited('mine')).now).toBeUndefined())
  it('takes away what could be redone', () => {
    const undone = next(told(fetched, edited('mine')), { what: 'stepped', from: 'back', document: document('three') })
    expect(next(undone, edited('other')).on).toEqual([])
  })
})

describe('What does not come through', () => {
  it('is sent again', () => {
    const s = told(fetched, edited('mine'), { what: 'sent' }, { what: 'failed' })
    expect([s.unsaved?.document.title, s.sending, savingOf(s)]).toEqual(['mine', undefined, 'unsaved'])
  })
  it('makes way for what was changed since', () => {
    const s = told(fetched, edited('one'), { what: 'sent' }, edited('two'), { what: 'failed' })
    expect(s.unsaved?.document.title).toBe('two')
  })
})

describe('A step', () => {
  const one = document('one')
  const s = told(fetched, { what: 'edited', document: one }, { what: 'sent' }, saved(4, 'one'), edited('two'))

  it('goes back and on again', () => {
    const target = s.back.at(-1) as Document
    const back = next(s, { what: 'stepped', from: 'back', document: target })
    expect([back.now?.title, titles(back.back), titles(back.on)]).toEqual(['one', [1, 2, 'three'], ['two']])
    const on = next(back, { what: 'stepped', from: 'on', document: back.on[0] as Document })
    expect([on.now?.title, titles(on.back), titles(on.on)]).toEqual(['two', [1, 2, 'three', 'one'], []])
  })
  it('to what was saved before says which revision that is', () => {
    expect(next(s, { what: 'stepped', from: 'back', document: s.back.at(-1) as Document }).unsaved?.restoredFrom).toBe(4)
    const two = document('as it was')
    const read = next(s, { what: 'read', document: two, number: 2 })
    const stepped = next(read, { what: 'stepped', from: 'back', document: two })
    expect(stepped.unsaved).toEqual({ document: two, restoredFrom: 2 })
    // Saved, it has the content of that revision.
    const done = next(next(stepped, { what: 'sent' }), saved(5, 'as it was'))
    expect([done.revision, done.number, done.numbers.get(two)]).toEqual([5, 2, 2])
  })
  it('restores any revision, from where undo leads back', () => {
    const old = document('old')
    const restored = next(s, { what: 'restored', document: old, number: 1 })
    expect([restored.now, restored.unsaved?.restoredFrom, titles(restored.back).at(-1), restored.on]).toEqual([old, 1, 'two', []])
  })
})

describe('A conflict', () => {
  const clashed = told(fetched, edited('mine'), { what: 'sent' }, { what: 'clashed' }, { what: 'differs', difference: difference(7) })

  it('stops saving and keeps what is here, which can still be changed', () => {
    expect([savingOf(clashed), clashed.unsaved?.document.title, clashed.difference?.revision]).toEqual(['conflict', 'mine', 7])
    expect(next(clashed, edited('more')).unsaved?.document.title).toBe('more')
    expect(told(fetched, { what: 'differs', difference: difference(7) }).difference).toBeUndefined()
  })
  it('ends with both, of which undo takes back one’s own', () => {
    const s = next(clashed, { what: 'settled', how: 'both', difference: difference(8) })
    expect([s.now?.title, s.unsaved?.document.title, s.revision, s.number, savingOf(s), titles(s.back).at(-1)]).toEqual([
      'both',
      'both',
      8,
      8,
      'unsaved',
      'theirs',
    ])
    expect([s.lesson?.revision, s.difference]).toEqual([8, undefined])
  })
  it('ends with theirs, from where undo leads to one’s own', () => {
    const s = next(clashed, { what: 'settled', how: 'theirs', difference: difference(8) })
    expect([s.now?.title, s.unsaved, s.revision, savingOf(s), titles(s.back).at(-1)]).toEqual(['theirs', undefined, 8, 'saved', 'mine'])
    // Undone, it is saved on top of theirs.
    const undone = next(s, { what: 'stepped', from: 'back', document: s.back.at(-1) as Document })
    expect([undone.unsaved?.document.title, undone.unsaved?.restoredFrom]).toEqual(['mine', undefined])
  })
})

it('tells nothing of a save that was not asked for', () => {
  const s = told(fetched)
  expect(next(s, saved(9, 'strange'))).toBe(s)
})
