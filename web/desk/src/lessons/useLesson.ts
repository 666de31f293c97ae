import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, Refused, type Schemas, taken } from '../app/api'

export type Document = Schemas['LessonDocument']
export type Section = Schemas['Section']
type Lesson = Schemas['LessonView']

const saveAfterMs = 500

/**
 * A lesson being worked on: every edit shows at once, is saved by itself a moment later, and can be undone. Saves go one after
 * the other, each based on the revision that the last one made.
 */
export function useLesson(id: string) {
  const client = useQueryClient()
  const [lesson, setLesson] = useState<Lesson>()
  const [document, setDocument] = useState<Document>()
  const [problem, setProblem] = useState<string>()
  const [saving, setSaving] = useState<'saved' | 'unsaved' | 'conflict'>('saved')
  const [steps, setSteps] = useState({ back: 0, on: 0 })
  const state = useRef({ revision: 0, wanted: undefined as Document | undefined, running: false, conflict: false, timer: 0, back: [] as Document[], on: [] as Document[] })

  useEffect(() => {
    let current = true
    state.current = { revision: 0, wanted: undefined, running: false, conflict: false, timer: 0, back: [], on: [] }
    taken(api.GET('/api/lessons/{id}', { params: { path: { id } } })).then(
      (found) => {
        if (!current) return
        state.current.revision = found.revision
        setLesson(found)
        setDocument(found.document)
      },
      (refused: Error) => current && setProblem(refused.message),
    )
    return () => {
      current = false
    }
  }, [id])

  const save = useCallback(async () => {
    const s = state.current
    if (s.running || s.conflict || !s.wanted) return
    s.running = true
    const sent = s.wanted
    s.wanted = undefined
    try {
      const saved = await taken(api.PUT('/api/lessons/{id}/document', { params: { path: { id } }, body: { basedOn: s.revision, document: sent } }))
      s.revision = saved.revision
      setLesson((l) => l && { ...l, revision: saved.revision, savedAt: saved.savedAt, length: saved.length })
      // What the server tidied is shown, unless the person has gone on meanwhile.
      if (!s.wanted) {
        setDocument(saved.document)
        setSaving('saved')
      }
      client.invalidateQueries({ queryKey: ['deliver', id] })
      client.invalidateQueries({ queryKey: ['releases', id] })
    } catch (refused) {
      s.wanted ??= sent
      if (refused instanceof Refused && refused.status === 409) {
        s.conflict = true
        setSaving('conflict')
      } else {
        toast.error((refused as Error).message)
        s.timer = window.setTimeout(save, 5000)
      }
    }
    s.running = false
    if (s.wanted && !s.conflict && !s.timer) save()
  }, [client, id])

  const want = useCallback(
    (next: Document) => {
      const s = state.current
      s.wanted = next
      setDocument(next)
      setSteps({ back: s.back.length, on: s.on.length })
      if (s.conflict) return
      setSaving('unsaved')
      window.clearTimeout(s.timer)
      s.timer = window.setTimeout(() => {
        s.timer = 0
        save()
      }, saveAfterMs)
    },
    [save],
  )

  const edit = useCallback(
    (change: (before: Document) => Document) => {
      setDocument((before) => {
        if (!before) return before
        const next = change(before)
        if (next === before) return before
        queueMicrotask(() => {
          state.current.back.push(before)
          state.current.on = []
          want(next)
        })
        return next
      })
    },
    [want],
  )

  const step = useCallback(
    (from: 'back' | 'on', to: 'back' | 'on') => {
      setDocument((now) => {
        const target = state.current[from].pop()
        if (!now || !target) return now
        queueMicrotask(() => {
          state.current[to].push(now)
          want(target)
        })
        return target
      })
    },
    [want],
  )

  useEffect(() => {
    const leaving = (event: BeforeUnloadEvent) => {
      const s = state.current
      if (!s.wanted || s.conflict) return
      fetch(`/api/lessons/${id}/document`, {
        method: 'PUT',
        keepalive: true,
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ basedOn: s.revision, document: s.wanted }),
      }).catch(() => undefined)
      if (s.running) event.preventDefault()
    }
    addEventListener('beforeunload', leaving)
    return () => {
      removeEventListener('beforeunload', leaving)
      window.clearTimeout(state.current.timer)
      save()
    }
  }, [id, save])

  return { lesson, document, problem, saving, edit, undo: () => step('back', 'on'), redo: () => step('on', 'back'), steps }
}
