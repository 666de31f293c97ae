import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, taken } from '../app/api'
import { useKey } from '../app/keys'
import { type Profile, useSettled } from './settings'

const settleMs = 300

/** What could not be saved yet stays through leaving and loading again. */
const draftKey = (id: string) => `profile-draft ${id}`

function draftOf(id: string) {
  const kept = sessionStorage.getItem(draftKey(id))
  return kept ? (JSON.parse(kept) as Profile) : undefined
}

/** A profile that is being changed: undo and redo, what does not hold as it is typed, and saving by itself while nothing is wrong. */
export function useProfile(stored: Profile, locked: boolean, lessonId: string | undefined) {
  const client = useQueryClient()
  const [steps, setSteps] = useState({ past: [] as Profile[], now: (!locked && draftOf(stored.id)) || stored, next: [] as Profile[] })
  const [saving, setSaving] = useState<{ state: 'saved' | 'unsaved' | 'refused'; at?: Date; sentence?: string }>({ state: 'saved' })
  const profile = steps.now
  const settled = useSettled(profile, settleMs)
  const check = useQuery({
    queryKey: ['profile-check', settled, lessonId],
    queryFn: () => taken(api.POST('/api/profiles/check', { body: { profile: settled, lessonId: lessonId ?? null } })),
    placeholderData: (before) => before,
  })
  const saved = useRef(JSON.stringify(stored))
  const text = JSON.stringify(settled)
  useEffect(() => {
    if (locked || text === saved.current) return
    setSaving({ state: 'unsaved' })
    sessionStorage.setItem(draftKey(stored.id), text)
    let over = false
    taken(api.PUT('/api/profiles/{id}', { params: { path: { id: stored.id } }, body: JSON.parse(text) as Profile }))
      .then(() => {
        saved.current = text
        sessionStorage.removeItem(draftKey(stored.id))
        if (!over) setSaving({ state: 'saved', at: new Date() })
        for (const key of ['profiles', 'deliver', 'outlets']) client.invalidateQueries({ queryKey: [key] })
      })
      .catch((refused: Error) => over || setSaving({ state: 'refused', sentence: refused.message }))
    return () => {
      over = true
    }
  }, [text, locked, stored.id, client])

  const change = (next: Profile) => setSteps(({ past, now }) => ({ past: [...past, now], now: next, next: [] }))
  const undo = () =>
    setSteps((s) => (s.past.length === 0 ? s : { past: s.past.slice(0, -1), now: s.past[s.past.length - 1] as Profile, next: [s.now, ...s.next] }))
  const redo = () => setSteps((s) => (s.next.length === 0 ? s : { past: [...s.past, s.now], now: s.next[0] as Profile, next: s.next.slice(1) }))
  useKey('ctrl+z', undo)
  useKey('ctrl+shift+z', redo)
  return { profile, change, check, saving, undo: steps.past.length > 0 ? undo : undefined, redo: steps.next.length > 0 ? redo : undefined }
}
