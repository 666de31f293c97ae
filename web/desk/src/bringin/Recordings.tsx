import { useRef } from 'react'
import { type Document, recordingsOf } from '../lessons/useLesson'
import type { Reel } from '../lessons/useLessons'
import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { SortableList, useSortableItem } from '../ui/Sortable'
import { clock } from '../ui/words'
import { endings, useSendForLesson } from './BringIn'
import { SoundTracks } from './SoundTracks'
import { useReelChange, type Wanted } from './useReelChange'

interface Props {
  lessonId: string
  reel: Reel
  document: Document
  edit: (change: (d: Document) => Document) => void
  playback: Playback
}

/** The recordings that the lesson is made of: their order, more of them, new takes. What is placed on them goes with them. */
export function Recordings({ lessonId, reel, document, edit, playback }: Props) {
  const { asked, change, agree, leave } = useReelChange(document, edit)
  const send = useSendForLesson()
  const input = useRef<HTMLInputElement>(null)
  // Where what is chosen goes: in the place of one, or behind them all.
  const target = useRef<number | null>(null)
  const latest = useRef({ document, change })
  latest.current = { document, change }
  const asWanted = (d: Document): Wanted[] => recordingsOf(d).map((hash, was) => ({ hash, was }))
  const ids = reel.parts.map((p, i) => `${i} ${p.hash}`)
  const moved = (order: string[]) => {
    const now = asWanted(document)
    change(order.map((id) => now[ids.indexOf(id)]))
  }
  const choose = (replacing: number | null) => {
    target.current = replacing
    input.current?.click()
  }
  const come = (files: FileList | null) => {
    const replacing = target.current
    for (const file of files ?? [])
      send(file, {
        lessonId,
        take: (hash) => {
          // The lesson may have gone on while the file was coming.
          const now = asWanted(latest.current.document)
          latest.current.change(
            replacing === null || replacing >= now.length ? [...now, { hash, was: null }] : now.map((w, i) => (i === replacing ? { hash, was: i } : w)),
          )
        },
      })
  }
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Recordings">
      <h2>
        Recordings <span className="font-normal text-quiet">· {reel.parts.length === 1 ? 'one' : `${reel.parts.length}, one after the other`}</span>
      </h2>
      <SortableList ids={ids} kind="recording" nameOf={(id) => reel.parts[ids.indexOf(id)]?.fileName ?? ''} moved={moved}>
        <ol className="mt-1">
          {reel.parts.map((p, i) => (
            <RecordingLine
              key={ids[i]}
              id={ids[i]}
              part={p}
              alone={ids.length === 1}
              seek={() => playback.seek(p.span.start)}
              replace={() => choose(i)}
              remove={() => change(asWanted(document).filter((_, other) => other !== i))}
            />
          ))}
        </ol>
      </SortableList>
      {asked && (
        <div role="alert" className="mt-2 border-l-2 border-amber pl-3">
          <p className="text-amber">With that would go {asked.lost.join(', ')}. Undo brings it back.</p>
          <div className="mt-1 flex items-center gap-4">
            <Button onClick={agree}>Do it</Button>
            <Button look="link" onClick={leave}>
              Leave it as it is
            </Button>
          </div>
        </div>
      )}
      <p className="mt-1">
        <Button look="link" onClick={() => choose(null)}>
          Add a recording
        </Button>
      </p>
      <input
        ref={input}
        type="file"
        multiple
        accept={endings}
        className="hidden"
        tabIndex={-1}
        aria-label="Choose recordings for this lesson"
        onChange={(e) => {
          come(e.target.files)
          e.target.value = ''
        }}
      />
    </section>
  )
}

interface LineProps {
  id: string
  part: Reel['parts'][number]
  alone: boolean
  seek: () => void
  replace: () => void
  remove: () => void
}

function RecordingLine({ id, part: p, alone, seek, replace, remove }: LineProps) {
  const { item, isDragging, grip } = useSortableItem(id, p.fileName)
  const size = p.facts.picture?.shownSize
  return (
    <li {...item} className={`flex items-start gap-2 border-b border-hairline py-1.5 ${isDragging ? 'relative z-10 bg-field' : ''}`}>
      {!alone && grip}
      <div className="min-w-0 flex-1">
        <button type="button" onClick={seek} className="break-words text-left hover:text-copper">
          {p.fileName}
        </button>
        <p className="text-small text-quiet">
          <span className="font-mono">{clock(p.span.end - p.span.start)}</span>
          {size ? `, ${size.width} × ${size.height}` : ''}
          {p.facts.sounds.length === 0 ? ', no sound' : ''}
          {p.analysisFailure ? (
            <span className="text-brick"> · {p.analysisFailure}</span>
          ) : p.analysis && p.analysis.lookedUntil === null ? (
            ''
          ) : (
            ' · being looked through'
          )}
        </p>
        {p.facts.sounds.length > 1 && <SoundTracks part={p} />}
      </div>
      <p className="flex shrink-0 gap-3">
        <Button look="link" aria-label={`Replace ${p.fileName}`} onClick={replace}>
          New take
        </Button>
        {!alone && (
          <Button look="link" aria-label={`Remove ${p.fileName}`} onClick={remove}>
            Remove
          </Button>
        )}
      </p>
    </li>
  )
}
