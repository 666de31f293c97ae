import '../../../player/src/overlays/overlays.css'
import { useState } from 'react'
import { useWork } from '../lessons/work'
import { shownAt } from '../picture/ShownPicture'
import { boundsOf, pathOf } from '../sheet/shapes'
import { usePlayingTime } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import type { Action, Area } from './overlays'

/** Places to click as they lie on the recording's picture now; tried right there. It stands where the recording's picture does, so that it goes along. */
export function AreasOnPicture() {
  const { document, playback } = useWork()
  const now = usePlayingTime(playback)
  const [said, setSaid] = useState<{ of: string; text: string }>()
  const there = document.areas.filter((a) => a.span.start <= now && now < a.span.end)
  const act = (area: Area) => {
    const done: { [K in Action['kind']]: (action: Extract<Action, { kind: K }>) => void } = {
      section: ({ to }) => playback.seek(document.sections.find((s) => s.id === to)?.at ?? now),
      time: ({ to }) => playback.seek(to),
      link: ({ address }) => setSaid({ of: area.id, text: `Learners get ${address || 'no page yet'} in a new window.` }),
      text: ({ says }) => setSaid({ of: area.id, text: says || 'Nothing is written yet.' }),
      wait: () => setSaid({ of: area.id, text: 'The lesson goes on here.' }),
    }
    done[area.action.kind](area.action as never)
  }
  return (
    <>
      {there.map((area) => {
        const { x, y, width, height } = boundsOf(area.shape)
        return (
          <button
            key={area.id}
            type="button"
            title={area.text}
            aria-label={`Try “${area.text || 'a place'}”`}
            onClick={() => act(area)}
            className="area absolute"
            style={{ left: `${x * 100}%`, top: `${y * 100}%`, width: `${width * 100}%`, height: `${height * 100}%` }}
          >
            <svg viewBox={`${x * 100} ${y * 100} ${width * 100} ${height * 100}`} preserveAspectRatio="none" aria-hidden="true">
              <path d={pathOf(area.shape)} vectorEffect="non-scaling-stroke" />
            </svg>
          </button>
        )
      })}
      {said && there.some((a) => a.id === said.of) && (
        <div role="status" className="absolute inset-x-[10%] bottom-[10%] border border-ink bg-paper px-4 py-2">
          <p className="whitespace-pre-line">{said.text}</p>
          <Button look="link" onClick={() => setSaid(undefined)}>
            Close
          </Button>
        </div>
      )}
    </>
  )
}

/** Notes as they stand over what is seen now. */
export function NotesOnPicture() {
  const { document, playback } = useWork()
  const now = usePlayingTime(playback)
  return (
    <>
      {document.notes
        .filter((n) => n.span.start <= now && now < n.span.end)
        .map((note) => (
          <div key={note.id} className={`note ${note.corner}`} style={{ fontSize: 13 }}>
            {note.picture && <img src={shownAt(note.picture)} alt="" />}
            <p>{note.text}</p>
            {note.address && <span className="break-all text-[#a94a14] underline">{note.address.replace(/^https?:\/\/|^mailto:/, '').split('/')[0]} ↗</span>}
          </div>
        ))}
    </>
  )
}
