import { useState } from 'react'
import { useKey } from '../app/keys'
import { Captions } from '../captions/Captions'
import { BringInContents } from '../contents/BringInContents'
import { Proposed } from '../contents/Proposed'
import { SelectedSection } from '../contents/SelectedSection'
import { useProposals } from '../contents/useProposals'
import { LessonDetails } from '../details/LessonDetails'
import type { Reel } from '../lessons/useLessons'
import { useWork } from '../lessons/work'
import { PlaceOver } from '../overlays/PlaceOver'
import { LessonPicture } from '../picture/LessonPicture'
import { PlaceHere } from '../questions/PlaceHere'
import { usePlayingTime } from '../sheet/usePlayback'
import { AskAtEnd } from '../survey/AskAtEnd'
import { Translations } from '../translating/Translations'
import { Button } from '../ui/Button'
import { linkLook } from '../ui/TextLink'
import { clock, count } from '../ui/words'

interface Props {
  selected: string | undefined
  select: (id: string | undefined) => void
}

/** The chapters inside the recordings, along the lesson. */
const insideOf = (reel: Reel) =>
  reel.parts.flatMap((part) => (part.facts.chapters ?? []).map((c) => ({ at: part.span.start + c.at, title: c.title }))).filter((c) => c.title)

const formats = [
  ['txt', 'lines'],
  ['vtt', 'WebVTT chapters'],
  ['json', 'JSON chapters'],
] as const

/** The tools of the mark-up stage: contents and captions. */
export function MarkUp({ selected, select }: Props) {
  const { lessonId, document, reel, playback, edit } = useWork()
  const now = usePlayingTime(playback)
  const [pasting, setPasting] = useState(false)
  const made = useProposals()
  const taken = document.sections.find((s) => Math.abs(s.at - now) < 500)
  const add = () => {
    if (taken) return select(taken.id)
    const id = crypto.randomUUID()
    // Anywhere in the first second means the start: contents that begin at 0:00 work everywhere.
    const at = playback.now() < 1000 && !document.sections.some((s) => s.at === 0) ? 0 : playback.now()
    edit((d) => ({ ...d, sections: [...d.sections, { id, at, title: '', nested: false }].sort((a, b) => a.at - b.at) }))
    select(id)
    setTimeout(() => window.document.querySelector<HTMLInputElement>(`[data-section="${id}"]`)?.focus(), 60)
  }
  useKey('s', add)
  const current = document.sections.find((s) => s.id === selected)
  return (
    <>
      <section className="mt-4 border-t border-hairline pt-3">
        <h2>
          Contents{' '}
          <span className="font-normal text-quiet">
            · {count(document.sections.length, 'section')}
            {made.proposals.length > 0 && `, ${made.proposals.length} proposed`}
          </span>
        </h2>
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <Button onClick={add}>{taken ? `Section is here: select it` : `Set a section at ${clock(now)}`}</Button>
          <Button look="link" onClick={() => setPasting(true)}>
            Bring in contents
          </Button>
        </div>
        <Proposed made={made} />
        {document.sections.length === 0 && made.proposals.length === 0 && (
          <p className="mt-2 text-quiet">Play to where something new begins, and set a section there. The key is S.</p>
        )}
        {current && (
          <SelectedSection
            key={current.id}
            section={current}
            length={reel.length}
            playback={playback}
            edit={edit}
            select={select}
            first={document.sections[0]?.id === current.id}
          />
        )}
        {document.sections.length > 0 && (
          <p className="mt-2 flex flex-wrap gap-x-3 gap-y-2 text-small text-quiet">
            Download as
            {formats.map(([ending, what]) => (
              <a key={ending} href={`/api/lessons/${lessonId}/contents.${ending}`} download className={linkLook} aria-label={`Contents as ${what}`}>
                {what}
              </a>
            ))}
          </p>
        )}
      </section>
      <PlaceHere select={select} />
      <PlaceOver select={select} />
      <AskAtEnd select={select} />
      <Captions />
      <Translations />
      <LessonPicture />
      <LessonDetails />
      <BringInContents open={pasting} onClose={() => setPasting(false)} document={document} length={reel.length} inside={insideOf(reel)} edit={edit} />
    </>
  )
}
