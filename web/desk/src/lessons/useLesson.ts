import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, Refused, type Schemas, taken } from '../app/api'
import { type Difference, type Document, type LessonEvent, next, opened, savingOf, type Unsaved } from './lessonState'

export type { Difference, Document } from './lessonState'
export type Section = Schemas['Section']

/** The hashes of a lesson's recordings in their order. */
export const recordingsOf = (d: Document): string[] => [d.recordingHash, ...(d.following ?? [])]

const saveAfterMs = 500
const sendAgainAfterMs = 5000

/** Browsers send at most 64 KiB for pages that are gone (WHATWG Fetch, section 4.6); other requests count too. */
const mostKeptAlive = 48 * 1024

/** Whether what is sent goes on its way although its page is gone. */
const outlivesItsPage = (body: object) => new Blob([JSON.stringify(body)]).size <= mostKeptAlive

const complain = (problem: unknown) => toast.error((problem as Error).message)

/** Does something after a while; what was to be done before is not. */
function later(timer: { current: number }, work: () => void, ms: number) {
  window.clearTimeout(timer.current)
  timer.current = window.setTimeout(() => {
    timer.current = 0
    work()
  }, ms)
}

/**
 * A lesson being worked on: every edit shows at once, is saved by itself a moment later, and can be undone, also after the page was
 * left. Saves go one after the other, each based on the revision that the last one made. What somebody else saves shows at once
 * where nothing is unsaved here; otherwise both are shown against each other. What follows from what is `lessonState`'s.
 */
export function useLesson(id: string) {
  const client = useQueryClient()
  const [state, setState] = useState(() => opened(id))
  // As it is now, also between two drawings.
  const current = useRef(state)
  const timer = useRef(0)

  /** What comes late, for a lesson that was left, is not told. */
  const tell = useCallback(
    (event: LessonEvent) => {
      if (current.current.id !== id) return
      current.current = next(current.current, event)
      setState(current.current)
    },
    [id],
  )

  const fetched = useQuery({ queryKey: ['lesson', id], queryFn: () => taken(api.GET('/api/lessons/{id}', { params: { path: { id } } })), gcTime: 0 })

  useEffect(() => {
    if (current.current.id === id) return
    current.current = opened(id)
    setState(current.current)
  }, [id])

  useEffect(() => {
    if (fetched.data) tell({ what: 'fetched', lesson: fetched.data })
  }, [fetched.data, tell])

  const differ = useCallback(
    (mine: Document) =>
      taken(api.POST('/api/lessons/{id}/difference', { params: { path: { id } }, body: { basedOn: current.current.revision, document: mine } })),
    [id],
  )

  const save = useCallback(async () => {
    const { unsaved, sending, conflict, revision } = current.current
    if (sending || conflict || !unsaved || current.current.id !== id) return
    tell({ what: 'sent' })
    const body = { basedOn: revision, document: unsaved.document, restoredFrom: unsaved.restoredFrom ?? null }
    try {
      const keepalive = outlivesItsPage(body)
      tell({ what: 'saved', saved: await taken(api.PUT('/api/lessons/{id}/document', { params: { path: { id } }, body, keepalive })) })
      client.invalidateQueries({ queryKey: ['deliver', id] })
      client.invalidateQueries({ queryKey: ['releases', id] })
      client.invalidateQueries({ queryKey: ['details', id] })
    } catch (refused) {
      if (refused instanceof Refused && refused.status === 409) {
        tell({ what: 'clashed' })
        const mine = current.current.unsaved?.document ?? unsaved.document
        differ(mine).then((difference) => tell({ what: 'differs', difference }), complain)
        return
      }
      tell({ what: 'failed' })
      complain(refused)
      later(timer, save, sendAgainAfterMs)
      return
    }
    // What was changed meanwhile, and was kept from going by this.
    if (current.current.unsaved && !timer.current) save()
  }, [client, differ, id, tell])

  /** Tells what was changed, and has it saved a moment later. */
  const change = useCallback(
    (event: LessonEvent) => {
      tell(event)
      if (!current.current.conflict) later(timer, save, saveAfterMs)
    },
    [save, tell],
  )

  const edit = useCallback(
    (how: (before: Document) => Document) => {
      const { now } = current.current
      const document = now && how(now)
      if (document && document !== now) change({ what: 'edited', document })
    },
    [change],
  )

  const revision = useCallback(
    async (number: number) => {
      const document = await taken(api.GET('/api/lessons/{id}/revisions/{number}', { params: { path: { id, number } } }))
      tell({ what: 'read', document, number })
      return document
    },
    [id, tell],
  )

  const step = useCallback(
    async (from: 'back' | 'on') => {
      const target = current.current[from].at(-1)
      if (target === undefined) return
      try {
        const document = typeof target === 'number' ? await revision(target) : target
        // Pressed twice while it was fetched, it counts once.
        if (current.current[from].at(-1) === target) change({ what: 'stepped', from, document })
      } catch (problem) {
        complain(problem)
      }
    },
    [change, revision],
  )

  /** Brings any earlier revision back. */
  const restore = useCallback(
    async (number: number) => {
      try {
        change({ what: 'restored', document: await revision(number), number })
      } catch (problem) {
        complain(problem)
      }
    },
    [change, revision],
  )

  /** Ends a conflict: with one's own on top of theirs, or with theirs alone, from where undo leads back to one's own. */
  const settle = useCallback(
    async (how: 'both' | 'theirs') => {
      const mine = current.current.now
      if (!mine) return
      try {
        // Looked at again: there may be more by now, on either side.
        const difference: Difference = await differ(mine)
        const event = { what: 'settled', how, difference } as const
        if (how === 'both') change(event)
        else tell(event)
      } catch (problem) {
        complain(problem)
      }
    },
    [change, differ, tell],
  )

  useEffect(() => {
    const leaving = (event: BeforeUnloadEvent) => {
      const { unsaved, sending, conflict, revision } = current.current
      if (conflict) return
      const bodyOf = (owed: Unsaved) => ({ basedOn: revision, document: owed.document, restoredFrom: owed.restoredFrom ?? null })
      if (unsaved) {
        const body = bodyOf(unsaved)
        const keepalive = outlivesItsPage(body)
        api.PUT('/api/lessons/{id}/document', { params: { path: { id } }, body, keepalive }).catch(() => undefined)
        // What is too large to be sent without the page, or waits for what is under way, is sent while the browser asks whether to leave.
        if (sending || !keepalive) event.preventDefault()
      } else if (sending && !outlivesItsPage(bodyOf(sending))) event.preventDefault()
    }
    addEventListener('beforeunload', leaving)
    return () => {
      removeEventListener('beforeunload', leaving)
      window.clearTimeout(timer.current)
      timer.current = 0
      save()
    }
  }, [id, save])

  return {
    lesson: state.lesson,
    document: state.now,
    problem: state.lesson ? undefined : fetched.error?.message,
    saving: savingOf(state),
    changes: state.changes,
    difference: state.difference,
    edit,
    undo: () => step('back'),
    redo: () => step('on'),
    restore,
    settle,
    steps: { back: state.back.length, on: state.on.length },
  }
}
