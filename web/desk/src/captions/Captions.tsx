import { useRef, useState } from 'react'
import { api, refusal, type Schemas, taken } from '../app/api'
import { type Document, recordingsOf } from '../lessons/useLesson'
import type { Reel } from '../lessons/useLessons'
import { Button } from '../ui/Button'
import { count } from '../ui/words'

const names = new Intl.DisplayNames(['en-GB'], { type: 'language' })

interface Props {
  document: Document
  reel: Reel
  edit: (change: (d: Document) => Document) => void
}

export function Captions({ document, reel, edit }: Props) {
  const input = useRef<HTMLInputElement>(null)
  const [problems, setProblems] = useState<string[]>([])
  const add = async (file: File | undefined) => {
    if (!file) return
    const answer = await fetch(`/api/captions?fileName=${encodeURIComponent(file.name)}&language=${document.language}`, {
      method: 'PUT',
      body: file,
      headers: { 'Content-Type': 'application/octet-stream' },
    }).catch(() => undefined)
    if (!answer?.ok) return setProblems([refusal(await answer?.json().catch(() => undefined), answer?.status ?? 0).message])
    take((await answer.json()) as Schemas['CaptionsRead'])
  }
  const take = (read: Schemas['CaptionsRead']) => {
    setProblems(read.problems.map((p) => p.sentence))
    const track = read.track
    // Only the first track is shown here so far; others stay as they are.
    if (track) edit((d) => ({ ...d, captions: [track, ...d.captions.slice(1)] }))
  }
  const takeInside = async (place: number) => {
    const read = taken(api.POST('/api/captions/inside', { body: { recordings: recordingsOf(document), place, language: document.language } }))
    await read.then(take, (failed: Error) => setProblems([failed.message]))
  }
  const [shown] = document.captions
  // Tracks of several recordings in the same place belong together.
  const inside = reel.parts.flatMap((p) => p.facts.subtitles ?? []).filter((s, i, all) => all.findIndex((other) => other.place === s.place) === i)
  return (
    <section className="mt-4 border-t border-hairline pt-3">
      <h2>Captions</h2>
      {shown ? (
        <p className="mt-1">
          {shown.fileName}: {count(shown.cueCount, 'caption')}
        </p>
      ) : (
        <p className="mt-1 text-quiet">None yet. Add a WebVTT or SubRip file; it shows on the picture and in the sheet.</p>
      )}
      <div className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        {inside.map((s) => (
          <Button key={s.place} look="link" onClick={() => takeInside(s.place)}>
            Take those inside the recording{s.title || s.language ? ` (${[s.language && names.of(s.language), s.title].filter(Boolean).join(', ')})` : ''}
          </Button>
        ))}
        <Button look="link" onClick={() => input.current?.click()}>
          {shown ? 'Add another file instead' : 'Add a caption file'}
        </Button>
        {shown && (
          <Button look="link" onClick={() => edit((d) => ({ ...d, captions: d.captions.slice(1) }))}>
            Remove
          </Button>
        )}
      </div>
      <input
        ref={input}
        type="file"
        accept=".vtt,.srt"
        className="hidden"
        tabIndex={-1}
        aria-label="Choose a caption file"
        onChange={(e) => {
          add(e.target.files?.[0])
          e.target.value = ''
        }}
      />
      {problems.length > 0 && (
        <div role="alert" className="mt-2 text-amber">
          <ul>
            {problems.map((p) => (
              <li key={p}>{p}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  )
}
