import { useQuery } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { type Document, recordingsOf } from '../lessons/useLesson'
import type { Cut } from '../sheet/blocks'
import type { Playback } from '../sheet/usePlayback'
import { framesOf } from '../tidy/CanvasPanel'

export type MoveIn = Schemas['MoveIn']
export type Proposal = Schemas['ProposedMoveIn']

const usualEase = 500
const usualPart = { x: 0.25, y: 0.25, width: 0.5, height: 0.5 }
const none: MoveIn[] = []

/** The lesson's move-ins: which is selected, and what can be done with them. */
export function useMoveIns(document: Document | undefined, edit: (change: (d: Document) => Document) => void, playback: Playback) {
  const [selected, setSelected] = useState<string>()
  const list = document?.moveIns ?? none
  const cuts = document?.cuts
  const recordings = document ? recordingsOf(document) : []
  const canvas = document?.canvas ?? null
  const frames = document ? framesOf(document) : []
  const path = useQuery({
    queryKey: ['view-path', recordings, cuts, canvas, frames, list],
    queryFn: () => taken(api.POST('/api/view-path', { body: { recordings, cuts: cuts ?? [], canvas, frames, moveIns: list } })),
    enabled: list.length > 0,
    placeholderData: (before) => before,
  }).data
  const put = (span: Cut, part: MoveIn['part']) => {
    const id = crypto.randomUUID().slice(0, 8)
    const moveIn = { id, span: { start: span.start, end: span.end, length: span.end - span.start }, part, ease: usualEase }
    edit((d) => ({ ...d, moveIns: [...(d.moveIns ?? []), moveIn].sort((a, b) => a.span.start - b.span.start) }))
    return id
  }
  /** Selects one and shows it where it has arrived. */
  const select = (id: string | undefined) => {
    setSelected(id)
    const moveIn = list.find((m) => m.id === id)
    if (moveIn) playback.seek(Math.min(moveIn.span.start + moveIn.ease, (moveIn.span.start + moveIn.span.end) / 2))
  }
  const latest = useRef({ put, select, playback })
  latest.current = { put, select, playback }
  // Stays the same, so that rows of the sheet need not be drawn again.
  const acting = useMemo(
    () => ({
      select: (id: string) => latest.current.select(id),
      take: (proposal: Proposal) => {
        latest.current.put(proposal.span, proposal.part)
        latest.current.playback.seek(Math.min(proposal.span.start + usualEase, proposal.span.end))
      },
    }),
    [],
  )
  return {
    list,
    path: list.length > 0 ? path : undefined,
    selected: list.find((m) => m.id === selected),
    select,
    acting,
    /** Moves in on the middle of the picture in a stretch, to be set from there. */
    add: (span: Cut) => setSelected(put(span, usualPart)),
    change: (id: string, change: Partial<MoveIn>) => edit((d) => ({ ...d, moveIns: (d.moveIns ?? []).map((m) => (m.id === id ? { ...m, ...change } : m)) })),
    remove: (id: string) => edit((d) => ({ ...d, moveIns: (d.moveIns ?? []).filter((m) => m.id !== id) })),
  }
}

export type MoveIns = ReturnType<typeof useMoveIns>
export type ActingOnDetail = MoveIns['acting']
