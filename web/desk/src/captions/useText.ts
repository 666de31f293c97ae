import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import { useCues } from '../lessons/useLessons'
import { type Changes, type Cue, changed, type Track } from './cues'

export type Draft = Schemas['DraftView']

/** The draft among what can be chosen to be shown. */
export const draftId = 'draft'

const noCues: Cue[] = []
const noWords: Schemas['UnsureWord'][] = []

export interface Opened {
  id: string
  cursor: 'start' | 'end' | number
}

/** A lesson's captions as they are worked on: which text is shown, what it says, and changing it. */
export interface Text {
  /** The track that is shown; undefined for the draft, or where there is no text. */
  track?: Track
  draft?: Draft
  cues: Cue[]
  /** The words that the engine was not sure of, where what is shown comes from it. */
  unsure: Schemas['UnsureWord'][]
  choose: (id: string) => void
  /** The caption that is being corrected, and where the cursor is to stand in it. */
  opened?: Opened
  open: (id: string, cursor: Opened['cursor']) => void
  leave: () => void
  /** Where the cursor stood last in the caption that is being corrected. */
  cursorWas: { current: { id: string; at: number } | undefined }
  /** Changes what is shown; a draft becomes a track by that. */
  change: (changes: Changes) => void
  /** Whether something was changed, or typed, that is not in the lesson yet. */
  unkept: boolean
  /** Told what keeps what is being typed, while there is such; nothing once it is kept. */
  typing: (keep: (() => void) | undefined) => void
  /** Takes the draft as a track, of a kind and in a state. */
  take: (as: Partial<Track>) => Promise<void>
}

export function useText(lessonId: string, document: Document | undefined, edit: (how: (d: Document) => Document) => void): Text {
  const client = useQueryClient()
  const [chosen, choose] = useState<string>()
  const [opened, setOpened] = useState<Opened>()
  const cursorWas = useRef<{ id: string; at: number }>(undefined)
  const open = useCallback((id: string, cursor: Opened['cursor']) => {
    cursorWas.current = undefined
    setOpened({ id, cursor })
  }, [])
  const leave = useCallback(() => setOpened(undefined), [])
  const draft = useQuery({
    queryKey: ['draft', lessonId],
    queryFn: () => taken(api.GET('/api/lessons/{id}/draft', { params: { path: { id: lessonId } } })),
    placeholderData: (before) => before,
  }).data
  const tracks = document?.captions
  const track = chosen === draftId ? undefined : (tracks?.find((t) => t.id === chosen) ?? tracks?.[0])
  const saved = useCues(track?.hash).data
  // What was changed here and is still on its way; changes go one after the other, each on top of what the last one made.
  const [pending, setPending] = useState<{ id: string; cues: Cue[] }>()
  const latest = useRef<{ id: string; hash: string; cues: Cue[]; waiting: number; shown?: boolean }>(undefined)
  // What was made last is what is changed next, until the page shows it; from then on the page is, where undo may have led elsewhere.
  if (latest.current?.waiting === 0 && latest.current.hash === track?.hash) latest.current.shown = true
  const [typed, setTyped] = useState(false)
  const keepTyped = useRef<() => void>(undefined)
  const typing = useCallback((keep: (() => void) | undefined) => {
    keepTyped.current = keep
    setTyped(keep !== undefined)
  }, [])
  const unkept = typed || pending !== undefined
  useEffect(() => {
    if (!unkept) return
    // It is kept while the browser asks whether to leave.
    const leaving = (event: BeforeUnloadEvent) => {
      keepTyped.current?.()
      event.preventDefault()
    }
    addEventListener('beforeunload', leaving)
    return () => removeEventListener('beforeunload', leaving)
  }, [unkept])
  const line = useRef(Promise.resolve())
  const now = useRef({ track, saved, draft })
  now.current = { track, saved, draft }

  const take = useCallback(
    async (as: Partial<Track>) => {
      const made = { ...(await taken(api.POST('/api/lessons/{id}/draft', { params: { path: { id: lessonId } } }))), ...as }
      client.setQueryData(['cues', made.hash], now.current.draft?.cues)
      edit((d) => ({ ...d, captions: as.kind === 'captions' ? [made, ...d.captions] : [...d.captions, made] }))
      choose(made.id)
      // Whoever changes it next changes this.
      latest.current = { id: made.id, hash: made.hash, cues: now.current.draft?.cues ?? [], waiting: latest.current?.waiting ?? 0 }
    },
    [client, edit, lessonId],
  )

  const change = useCallback(
    (changes: Changes) => {
      if (changes.set.length + changes.removed.length === 0) return
      const { track, saved, draft } = now.current
      const made = latest.current
      const last = made && !made.shown && (made.waiting > 0 || made.id === track?.id) ? made : undefined
      const id = last?.id ?? track?.id ?? draftId
      const cues = changed(last?.cues ?? (track ? saved : draft?.cues) ?? noCues, changes)
      latest.current = { id, hash: last?.hash ?? track?.hash ?? '', cues, waiting: (last?.waiting ?? 0) + 1 }
      setPending({ id, cues })
      line.current = line.current.then(async () => {
        const current = latest.current
        if (!current) return
        try {
          if (current.id === draftId && !current.hash) {
            const cuesNow = current.cues
            await take({ kind: 'captions' })
            latest.current = { ...(latest.current ?? current), cues: cuesNow, waiting: current.waiting }
          }
          const { id: trackId, hash } = latest.current ?? current
          const kept = await taken(api.POST('/api/captions/{hash}/changes', { params: { path: { hash } }, body: changes }))
          const made = latest.current
          if (!made) return
          made.hash = kept.hash
          made.waiting--
          if (made.waiting === 0) client.setQueryData(['cues', kept.hash], made.cues)
          edit((d) => ({ ...d, captions: d.captions.map((t) => (t.id === trackId ? { ...t, ...kept } : t)) }))
          if (made.waiting === 0) setPending(undefined)
        } catch (problem) {
          // What was typed stays on the page until it is loaded again; what is kept is what the server has.
          latest.current = undefined
          setPending(undefined)
          toast.error((problem as Error).message)
        }
      })
    },
    [client, edit, take],
  )

  return useMemo(() => {
    const fromDraft = !track || track.state === 'draft'
    return {
      track,
      draft,
      cues: pending && pending.id === (track?.id ?? draftId) ? pending.cues : ((track ? saved : draft?.cues) ?? noCues),
      unsure: (fromDraft && draft?.unsure) || noWords,
      choose,
      opened,
      open,
      leave,
      cursorWas,
      unkept,
      typing,
      change,
      take,
    }
  }, [track, saved, draft, pending, opened, open, leave, unkept, typing, change, take])
}
