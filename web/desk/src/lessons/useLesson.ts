import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, Refused, type Schemas, taken } from '../app/api'

export type Document = Schemas['LessonDocument']
export type Section = Schemas['Section']
export type Difference = Schemas['Difference']
type Lesson = Schemas['LessonView']

/** The hashes of a lesson's recordings in their order. */
export const recordingsOf = (d: Document): string[] => [d.recordingHash, ...(d.following ?? [])]

/** Something to go back to: a document of this page's own, or the number of a saved revision. */
type Step = Document | number

const saveAfterMs = 500

interface State {
  revision: number
  /** The revision whose content the last one has. */
  number: number
  now?: Document
  wanted?: Document
  restoredFrom?: number
  running: boolean
  conflict: boolean
  timer: number
  back: Step[]
  on: Step[]
}

const fresh = (): State => ({ revision: 0, number: 0, running: false, conflict: false, timer: 0, back: [], on: [] })

/** Browsers send at most 64 KiB for pages that are gone (WHATWG Fetch, section 4.6); other requests count too. */
const mostKeptAlive = 48 * 1024

/**
 * A lesson being worked on: every edit shows at once, is saved by itself a moment later, and can be undone, also after the page was
 * left. Saves go one after the other, each based on the revision that the last one made. What somebody else saves shows at once
 * where nothing is unsaved here; otherwise both are shown against each other.
 */
export function useLesson(id: string) {
  const client = useQueryClient()
  const [lesson, setLesson] = useState<Lesson>()
  const [document, setDocument] = useState<Document>()
  const [saving, setSaving] = useState<'saved' | 'unsaved' | 'conflict'>('saved')
  const [changes, setChanges] = useState('')
  const [difference, setDifference] = useState<Difference>()
  const [steps, setSteps] = useState({ back: 0, on: 0 })
  const state = useRef<State>(fresh())
  // Which saved revision a document of this page is.
  const numbers = useRef(new WeakMap<Document, number>())

  const fetched = useQuery({ queryKey: ['lesson', id], queryFn: () => taken(api.GET('/api/lessons/{id}', { params: { path: { id } } })), gcTime: 0 })

  const show = useCallback((now: Document) => {
    const s = state.current
    s.now = now
    setDocument(now)
    setSteps({ back: s.back.length, on: s.on.length })
  }, [])

  // biome-ignore lint/correctness/useExhaustiveDependencies: another lesson begins anew
  useEffect(() => {
    state.current = fresh()
    setDifference(undefined)
    setSaving('saved')
  }, [id])

  useEffect(() => {
    const s = state.current
    const found = fetched.data
    if (!found || found.id !== id || found.revision <= s.revision || s.wanted || s.running || s.conflict) return
    Object.assign(s, { revision: found.revision, number: found.history.now, back: [...found.history.back], on: [...found.history.on] })
    numbers.current.set(found.document, found.history.now)
    setLesson(found)
    show(found.document)
  }, [fetched.data, id, show])

  const differ = useCallback(
    (mine: Document) =>
      taken(api.POST('/api/lessons/{id}/difference', { params: { path: { id } }, body: { basedOn: state.current.revision, document: mine } })),
    [id],
  )

  const save = useCallback(async () => {
    const s = state.current
    if (s.running || s.conflict || !s.wanted) return
    s.running = true
    const sent = s.wanted
    const restoredFrom = s.restoredFrom ?? null
    s.wanted = undefined
    s.restoredFrom = undefined
    try {
      const saved = await taken(
        api.PUT('/api/lessons/{id}/document', { params: { path: { id } }, body: { basedOn: s.revision, document: sent, restoredFrom } }),
      )
      s.revision = saved.revision
      if (saved.changes) s.number = restoredFrom ?? saved.revision
      numbers.current.set(sent, s.number)
      numbers.current.set(saved.document, s.number)
      setLesson((l) => l && { ...l, revision: saved.revision, savedAt: saved.savedAt, length: saved.length })
      if (saved.changes) setChanges(saved.changes)
      // What the server tidied is shown, unless the person has gone on meanwhile.
      if (!s.wanted) {
        show(saved.document)
        setSaving('saved')
      }
      client.invalidateQueries({ queryKey: ['deliver', id] })
      client.invalidateQueries({ queryKey: ['releases', id] })
    } catch (refused) {
      if (!s.wanted) {
        s.wanted = sent
        s.restoredFrom = restoredFrom ?? undefined
      }
      if (refused instanceof Refused && refused.status === 409) {
        s.conflict = true
        setSaving('conflict')
        differ(s.wanted).then(setDifference, (problem: Error) => toast.error(problem.message))
      } else {
        toast.error((refused as Error).message)
        s.timer = window.setTimeout(save, 5000)
      }
    }
    s.running = false
    if (s.wanted && !s.conflict && !s.timer) save()
  }, [client, differ, id, show])

  const want = useCallback(
    (next: Document, restoredFrom?: number) => {
      const s = state.current
      s.wanted = next
      s.restoredFrom = restoredFrom
      show(next)
      if (s.conflict) return
      setSaving('unsaved')
      window.clearTimeout(s.timer)
      s.timer = window.setTimeout(() => {
        s.timer = 0
        save()
      }, saveAfterMs)
    },
    [save, show],
  )

  const edit = useCallback(
    (change: (before: Document) => Document) => {
      const s = state.current
      if (!s.now) return
      const next = change(s.now)
      if (next === s.now) return
      s.back.push(s.now)
      s.on = []
      want(next)
    },
    [want],
  )

  const revision = useCallback(
    async (number: number) => {
      const found = await taken(api.GET('/api/lessons/{id}/revisions/{number}', { params: { path: { id, number } } }))
      numbers.current.set(found, number)
      return found
    },
    [id],
  )

  const step = useCallback(
    async (from: 'back' | 'on', to: 'back' | 'on') => {
      const s = state.current
      const target = s[from].at(-1)
      if (target === undefined || !s.now) return
      try {
        const found = typeof target === 'number' ? await revision(target) : target
        if (s[from].at(-1) !== target) return
        s[from].pop()
        s[to].push(s.now)
        want(found, numbers.current.get(found))
      } catch (problem) {
        toast.error((problem as Error).message)
      }
    },
    [revision, want],
  )

  /** Brings any earlier revision back. */
  const restore = useCallback(
    async (number: number) => {
      try {
        const found = await revision(number)
        const s = state.current
        if (!s.now) return
        s.back.push(s.now)
        s.on = []
        want(found, number)
      } catch (problem) {
        toast.error((problem as Error).message)
      }
    },
    [revision, want],
  )

  /** Ends a conflict: with one's own on top of theirs, or with theirs alone, from where undo leads back to one's own. */
  const settle = useCallback(
    async (how: 'both' | 'theirs') => {
      const s = state.current
      const mine = s.now
      if (!mine) return
      let difference: Difference
      try {
        // Looked at again: there may be more by now, on either side.
        difference = await differ(mine)
      } catch (problem) {
        toast.error((problem as Error).message)
        return
      }
      s.conflict = false
      s.wanted = undefined
      s.revision = difference.revision
      s.number = difference.revision
      numbers.current.set(difference.theirDocument, difference.revision)
      setDifference(undefined)
      setSaving('saved')
      setLesson((l) => l && { ...l, revision: difference.revision, savedAt: difference.at })
      s.back.push(how === 'both' ? difference.theirDocument : mine)
      s.on = []
      if (how === 'both') want(difference.merged)
      else show(difference.theirDocument)
    },
    [differ, show, want],
  )

  useEffect(() => {
    const leaving = (event: BeforeUnloadEvent) => {
      const s = state.current
      if (!s.wanted || s.conflict) return
      const body = JSON.stringify({ basedOn: s.revision, document: s.wanted, restoredFrom: s.restoredFrom ?? null })
      const large = new Blob([body]).size > mostKeptAlive
      fetch(`/api/lessons/${id}/document`, { method: 'PUT', keepalive: !large, headers: { 'Content-Type': 'application/json' }, body }).catch(() => undefined)
      // What is too large to be sent without the page is sent while the browser asks whether to leave.
      if (s.running || large) event.preventDefault()
    }
    addEventListener('beforeunload', leaving)
    return () => {
      removeEventListener('beforeunload', leaving)
      window.clearTimeout(state.current.timer)
      save()
    }
  }, [id, save])

  return {
    lesson,
    document,
    problem: lesson ? undefined : fetched.error?.message,
    saving,
    changes,
    difference,
    edit,
    undo: () => step('back', 'on'),
    redo: () => step('on', 'back'),
    restore,
    settle,
    steps,
  }
}
