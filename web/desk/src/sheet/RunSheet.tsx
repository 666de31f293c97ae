import { type MouseEvent, useEffect, useMemo, useRef } from 'react'
import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'
import { clock, lengthOf } from '../ui/words'
import { type Block, type Cut, layOut, placeOf, stretchOf } from './blocks'
import { SectionHeading } from './SectionHeading'
import { SoundBand } from './SoundBand'
import type { Playback } from './usePlayback'
import { useStretch } from './useStretch'

interface Props {
  document: Document
  recording: Schemas['RecordingView']
  cues: Schemas['Cue'][]
  playback: Playback
  edit: (change: (d: Document) => Document) => void
  selected: string | undefined
  select: (id: string | undefined) => void
  editable: boolean
  stretch: Cut | undefined
  /** Given where stretches can be selected. */
  setStretch?: (stretch: Cut | undefined) => void
}

/** The lesson as a page that is read from top to bottom: time, pictures, sound, what is said, sections as headings. */
export function RunSheet({ document, recording, cues, playback, edit, selected, select, editable, stretch, setStretch }: Props) {
  const { analysis, facts } = recording
  const blocks = useMemo(
    () => layOut(document.sections, analysis?.pictureMoments ?? [], cues, document.cuts, facts.length),
    [document.sections, document.cuts, analysis, cues, facts.length],
  )
  const numbers = useMemo(() => numberOf(document.sections), [document.sections])
  const sheet = useRef<HTMLDivElement>(null)
  const line = useRef<HTMLDivElement>(null)
  const { follow, now } = playback
  const { band, press } = useStretch({ sheet, blocks, playback, stretch, setStretch })

  // The playing line moves outside React: it follows every frame, and only it changes.
  useEffect(() => {
    const place = (ms: number) => {
      const top = sheet.current && placeOf(sheet.current, blocks, ms)
      if (top == null || !line.current) return
      line.current.style.transform = `translateY(${top}px)`
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
        <div ref={band} hidden aria-hidden="true" className="pointer-events-none absolute left-4 right-4 top-0 z-[4] border-y-2 border-lagoon bg-lagoon/10" />
        {blocks.map((block, index) => (
          <div key={block.start} data-start={block.start}>
            {block.section && (
              <SectionHeading
                section={block.section}
                number={numbers.get(block.section.id) ?? ''}
                until={stretchOf(document.sections, block.section.id, facts.length)?.end ?? facts.length}
                edit={edit}
                playback={playback}
                selected={selected === block.section.id}
                select={select}
                editable={editable}
              />
            )}
            {/* biome-ignore lint/a11y/useKeyWithClickEvents: the time beside it is a button that does the same by keyboard */}
            {/* biome-ignore lint/a11y/noStaticElementInteractions: as above */}
            <div
              data-block={index}
              data-cut={block.cut ? '' : undefined}
              onClick={(e) => seek(e, block)}
              onPointerDown={press}
              className={`grid cursor-pointer grid-cols-[76px_140px_44px_1fr] gap-x-3 px-4 py-1 hover:bg-field ${setStretch ? 'select-none' : ''} ${block.cut ? 'min-h-[30px] text-quiet line-through' : 'min-h-[46px]'}`}
            >
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
                  draggable={false}
                  className={`w-[140px] border border-hairline object-left-top ${block.cut ? 'h-[26px] object-cover opacity-40' : 'h-[78px] object-contain'}`}
                />
              )}
              <span className="relative">{analysis && <SoundBand peaks={analysis.peaks} perSecond={analysis.peaksPerSecond} start={block.start} end={block.end} />}</span>
              <div>
                {block.cut?.start === block.start && (
                  <p className="no-underline">
                    <span className="inline-block text-quiet">Cut, {lengthOf(block.cut.end - block.cut.start)}</span>
                  </p>
                )}
                {block.cues.map((cue) => (
                  <p key={cue.span.start} className="mb-1">
                    <button
                      type="button"
                      onClick={() => playback.seek(cue.span.start)}
                      className={`whitespace-pre-line text-left hover:text-copper ${block.cut ? 'line-through' : ''}`}
                    >
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
