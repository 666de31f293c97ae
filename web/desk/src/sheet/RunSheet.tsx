import { type MouseEvent, useEffect, useMemo, useRef } from 'react'
import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'
import { clock } from '../ui/words'
import { type Block, layOut } from './blocks'
import { SectionHeading } from './SectionHeading'
import { SoundBand } from './SoundBand'
import type { Playback } from './usePlayback'

interface Props {
  document: Document
  recording: Schemas['RecordingView']
  cues: Schemas['Cue'][]
  playback: Playback
  edit: (change: (d: Document) => Document) => void
  selected: string | undefined
  select: (id: string | undefined) => void
  editable: boolean
}

/** The lesson as a page that is read from top to bottom: time, pictures, sound, what is said, sections as headings. */
export function RunSheet({ document, recording, cues, playback, edit, selected, select, editable }: Props) {
  const { analysis, facts } = recording
  const blocks = useMemo(() => layOut(document.sections, analysis?.pictureMoments ?? [], cues, facts.length), [document.sections, analysis, cues, facts.length])
  const numbers = useMemo(() => numberOf(document.sections), [document.sections])
  const sheet = useRef<HTMLDivElement>(null)
  const line = useRef<HTMLDivElement>(null)
  const { follow, now } = playback

  // The playing line moves outside React: it follows every frame, and only it changes.
  useEffect(() => {
    const place = (ms: number) => {
      const index = blocks.findLastIndex((b) => b.start <= ms)
      const row = sheet.current?.querySelector<HTMLElement>(`[data-block="${index}"]`)
      if (!row || !line.current) return
      const { start, end } = blocks[index]
      line.current.style.transform = `translateY(${row.offsetTop + row.offsetHeight * Math.min(1, (ms - start) / Math.max(1, end - start))}px)`
      const label = line.current.firstElementChild
      if (label) label.textContent = clock(ms)
    }
    place(now())
    const stop = follow(place)
    const resized = new ResizeObserver(() => place(now()))
    if (sheet.current) resized.observe(sheet.current)
    return () => {
      stop()
      resized.disconnect()
    }
  }, [blocks, follow, now])

  const seek = (event: MouseEvent<HTMLElement>, block: Block) => {
    if (!(event.target instanceof Element) || event.target.closest('input, button, a')) return
    const box = event.currentTarget.getBoundingClientRect()
    playback.seek(block.start + ((event.clientY - box.top) / box.height) * (block.end - block.start))
  }

  return (
    <section aria-label="Run sheet" className="min-w-0 flex-1 overflow-y-auto" data-testid="run-sheet">
      <div ref={sheet} className="relative pb-16">
        {!analysis && !recording.analysisFailure && (
          <p role="status" className="px-6 pt-3 text-quiet">
            The pictures and the sound come when the recording is looked through.
          </p>
        )}
        <div ref={line} aria-hidden="true" className="pointer-events-none absolute left-0 right-0 top-0 z-[5] h-0 border-t-2 border-copper">
          <span className="absolute left-2 -translate-y-1/2 bg-copper px-1.5 font-mono text-[13px] text-on-copper">0:00</span>
        </div>
        {blocks.map((block, index) => (
          <div key={block.start} data-start={block.start}>
            {block.section && (
              <SectionHeading
                section={block.section}
                number={numbers.get(block.section.id) ?? ''}
                until={nextStart(document, block.section.id, facts.length)}
                edit={edit}
                playback={playback}
                selected={selected === block.section.id}
                select={select}
                editable={editable}
              />
            )}
            {/* biome-ignore lint/a11y/useKeyWithClickEvents: the time beside it is a button that does the same by keyboard */}
            {/* biome-ignore lint/a11y/noStaticElementInteractions: as above */}
            <div data-block={index} onClick={(e) => seek(e, block)} className="grid min-h-[46px] cursor-pointer grid-cols-[76px_140px_44px_1fr] gap-x-3 px-4 py-1 hover:bg-field">
              <button
                type="button"
                onClick={() => playback.seek(block.start)}
                aria-label={`Go to ${clock(block.start)}`}
                className="self-start pt-0.5 text-right font-mono text-[13px] text-quiet hover:text-copper"
              >
                {clock(block.start)}
              </button>
              {block.picture === undefined ? (
                <span />
              ) : (
                <img
                  loading="lazy"
                  alt=""
                  src={`/api/recordings/${recording.hash}/pictures/${block.picture}.jpg`}
                  className="h-[78px] w-[140px] border border-hairline object-contain object-left-top"
                />
              )}
              <span className="relative">{analysis && <SoundBand peaks={analysis.peaks} perSecond={analysis.peaksPerSecond} start={block.start} end={block.end} />}</span>
              <div>
                {block.cues.map((cue) => (
                  <p key={cue.span.start} className="mb-1">
                    <button type="button" onClick={() => playback.seek(cue.span.start)} className="whitespace-pre-line text-left hover:text-copper">
                      {cue.text}
                    </button>
                  </p>
                ))}
              </div>
            </div>
          </div>
        ))}
      </div>
    </section>
  )
}

function nextStart(document: Document, id: string, length: number): number {
  const index = document.sections.findIndex((s) => s.id === id)
  const nested = document.sections[index]?.nested
  return document.sections.slice(index + 1).find((s) => nested || !s.nested)?.at ?? length
}

/** 1, 2, 2.1, 2.2, 3 … */
function numberOf(sections: Document['sections']): Map<string, string> {
  const numbers = new Map<string, string>()
  let main = 0
  let sub = 0
  for (const section of sections) {
    if (section.nested) numbers.set(section.id, `${main}.${++sub}`)
    else {
      numbers.set(section.id, `${++main}`)
      sub = 0
    }
  }
  return numbers
}
