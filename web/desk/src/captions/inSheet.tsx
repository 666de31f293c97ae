import { useMemo, useRef } from 'react'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { exactClock } from '../ui/words'
import { CueEditor } from './CueEditor'
import { CueNotes } from './CueNotes'
import { type Cue, pieces } from './cues'
import { notesByCue } from './look'
import { useLook } from './useLook'

/** What is said, as captions; where a lesson is marked up, each is corrected where it stands. */
export function useSaid({ stage }: Looking): SheetThing[] {
  const { text, playback } = useWork()
  const look = useLook()
  const { cues, unsure, opened, open } = text
  const { seek } = playback
  const editing = stage === 'mark-up'
  const latest = useRef(look)
  latest.current = look
  const { notes } = look
  const marked = useMemo(() => new Set(notes.filter((n) => n.kind === 'unsure').map((n) => n.key)), [notes])
  // A word that is marked says by itself that somebody should look at it; what it says is shown where its caption is opened.
  const byCue = useMemo(() => notesByCue(editing ? notes.filter((n) => n.kind !== 'unsure' || n.cue === opened?.id) : []), [editing, notes, opened?.id])
  return useMemo(
    () =>
      cues.map((cue) => ({
        key: cue.id,
        at: cue.span.start,
        place: 'said',
        text: cue.text,
        px: (editing && opened?.id === cue.id ? 90 : 0) + 24 * (byCue.get(cue.id)?.length ?? 0),
        show: (struck) =>
          editing && opened?.id === cue.id ? (
            <>
              <CueEditor cue={cue} cursor={opened.cursor} />
              {byCue.has(cue.id) && <CueNotes notes={byCue.get(cue.id) ?? []} look={latest.current} />}
            </>
          ) : (
            <>
              <p className="mb-1" data-cue={cue.id}>
                <button
                  type="button"
                  aria-label={editing ? `Correct the caption at ${exactClock(cue.span.start)}: ${cue.text}` : undefined}
                  onClick={(event) => {
                    seek(cue.span.start)
                    if (editing) open(cue.id, cursorAt(event.clientX, event.clientY, cue))
                  }}
                  onKeyDown={(event) => {
                    // Stepped to by the arrows, the next one is opened from here.
                    if (editing && event.key === 'Enter') {
                      event.preventDefault()
                      open(cue.id, 'start')
                    }
                  }}
                  className={`whitespace-pre-line text-left ${editing ? 'cursor-text hover:bg-field' : 'hover:text-copper'} ${struck ? 'line-through' : ''}`}
                >
                  {editing ? <Said cue={cue} unsure={unsure} marked={marked} /> : cue.text}
                </button>
              </p>
              {byCue.has(cue.id) && <CueNotes notes={byCue.get(cue.id) ?? []} look={latest.current} />}
            </>
          ),
      })),
    [cues, unsure, seek, editing, opened, open, byCue, marked],
  )
}

/** A caption's words, those marked of which the engine was not sure and nobody has said that they are right. */
function Said({ cue, unsure, marked }: { cue: Cue; unsure: Parameters<typeof pieces>[1]; marked: ReadonlySet<string> }) {
  return pieces(cue, unsure).map((piece, i) =>
    piece.confidence === undefined || !marked.has(`${cue.id}:${piece.text}`) ? (
      piece.text
    ) : (
      // biome-ignore lint/suspicious/noArrayIndexKey: the words have no other name, and stand in order
      <mark key={i} className="bg-[#f3e4c4] text-ink dark:bg-[#4a3a14] dark:text-inherit" title={`${Math.round(piece.confidence * 100)} % sure`}>
        {piece.text}
      </mark>
    ),
  )
}

/** Where in a caption's text somebody pressed, so that the cursor stands there. */
function cursorAt(x: number, y: number, cue: Cue): number | 'end' {
  const place = window.document.caretPositionFromPoint?.(x, y)
  const within = place?.offsetNode.parentElement?.closest('[data-cue]')
  if (!place || !within || place.offsetNode.nodeType !== Node.TEXT_NODE) return 'end'
  let before = 0
  const walk = window.document.createTreeWalker(within, NodeFilter.SHOW_TEXT)
  for (let node = walk.nextNode(); node; node = walk.nextNode()) {
    if (node === place.offsetNode) return Math.min(cue.text.length, before + place.offset)
    before += node.textContent?.length ?? 0
  }
  return 'end'
}
