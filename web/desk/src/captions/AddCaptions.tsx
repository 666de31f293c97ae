import { useState } from 'react'
import { api, refusal, type Schemas, taken } from '../app/api'
import { recordingsOf } from '../lessons/useLesson'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { LanguageInput, languageName } from '../ui/LanguageInput'

/** Captions from a file, or from inside the recordings; in a language that has some already, they take their place. */
export function AddCaptions() {
  const { document, reel, edit, text } = useWork()
  const [language, setLanguage] = useState<string>()
  const [problems, setProblems] = useState<string[]>([])
  const tag = language ?? document.language
  const take = (read: Schemas['CaptionsRead']) => {
    setProblems(read.problems.map((p) => p.sentence))
    if (!read.track) return
    const made = {
      ...read.track,
      kind: read.track.language.split('-')[0] === document.language.split('-')[0] ? ('captions' as const) : ('translation' as const),
    }
    edit((d) => {
      const place = d.captions.findIndex((t) => t.language === made.language && t.kind !== 'machineDraft')
      return { ...d, captions: place < 0 ? [...d.captions, made] : d.captions.with(place, made) }
    })
    text.choose(made.id)
  }
  const add = async (file: File) => {
    const answer = await fetch(`/api/captions?fileName=${encodeURIComponent(file.name)}&language=${tag}`, {
      method: 'PUT',
      body: file,
      headers: { 'Content-Type': 'application/octet-stream' },
    }).catch(() => undefined)
    if (!answer?.ok) return setProblems([refusal(await answer?.json().catch(() => undefined), answer?.status ?? 0).message])
    take((await answer.json()) as Schemas['CaptionsRead'])
  }
  const takeInside = async (place: number) => {
    const read = taken(api.POST('/api/captions/inside', { body: { recordings: recordingsOf(document), place, language: document.language } }))
    await read.then(take, (failed: Error) => setProblems([failed.message]))
  }
  // Tracks of several recordings in the same place belong together.
  const inside = reel.parts.flatMap((p) => p.facts.subtitles ?? []).filter((s, i, all) => all.findIndex((other) => other.place === s.place) === i)
  return (
    <>
      <details className="mt-2 border-t border-hairline pt-2">
        <summary className="cursor-pointer">Add captions</summary>
        <div className="mt-2 flex flex-col items-start gap-2">
          {inside.map((s) => (
            <Button key={s.place} look="link" onClick={() => takeInside(s.place)}>
              Take those inside the recording{s.title || s.language ? ` (${[s.language && languageName(s.language), s.title].filter(Boolean).join(', ')})` : ''}
            </Button>
          ))}
          <LanguageInput label="Language of the file" value={tag} take={setLanguage} />
          <ChooseFile label="Choose a caption file" accept=".vtt,.srt,.ttml,.xml,.dfxp,.txt" take={add}>
            {document.captions.some((t) => t.language === tag && t.kind !== 'machineDraft')
              ? `Add a file in place of ${languageName(tag)}`
              : 'Add a caption file'}
          </ChooseFile>
        </div>
      </details>
      {problems.length > 0 && (
        <div role="alert" className="mt-2 text-amber">
          <ul>
            {problems.map((p) => (
              <li key={p}>{p}</li>
            ))}
          </ul>
        </div>
      )}
    </>
  )
}
