import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, refusal, type Schemas, taken } from '../app/api'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { DropText } from '../ui/DropText'
import { count } from '../ui/words'
import { useScript } from './useScript'

type Read = Schemas['ScriptRead']

/** Captions made of the trainer's own script, laid along the voice; what is said otherwise is marked in the sheet and not guessed. */
export function FromScript() {
  const { lessonId, edit, text } = useWork()
  const client = useQueryClient()
  const [read, setRead] = useState<Read>()
  const [problem, setProblem] = useState('')
  const [pasted, setPasted] = useState('')
  const [busy, setBusy] = useState(false)
  const script = useScript(lessonId)
  const lay = useMutation({
    mutationFn: () => taken(api.POST('/api/lessons/{id}/script/lay', { params: { path: { id: lessonId } } })),
    onSuccess: (made) => {
      setRead(made)
      for (const kind of ['script', 'proposals']) client.invalidateQueries({ queryKey: [kind, lessonId] })
      edit((d) => {
        const place = d.captions.findIndex((t) => t.language === made.track.language && t.kind === 'captions')
        return { ...d, captions: place < 0 ? [made.track, ...d.captions] : d.captions.with(place, made.track) }
      })
      text.choose(made.track.id)
    },
    onError: (refused) => setProblem(refused.message),
  })
  const ready = script && !script.waiting && !script.laid
  const { mutate, isIdle } = lay
  // Whoever gave it waits for its captions: they are made as soon as the voice has been listened to.
  useEffect(() => {
    if (ready && isIdle) mutate()
  }, [ready, isIdle, mutate])
  const send = async (body: Blob, fileName: string) => {
    setBusy(true)
    setProblem('')
    setRead(undefined)
    lay.reset()
    const answer = await fetch(`/api/lessons/${lessonId}/script?fileName=${encodeURIComponent(fileName)}`, {
      method: 'PUT',
      body,
      headers: { 'Content-Type': 'application/octet-stream' },
    }).catch(() => undefined)
    setBusy(false)
    if (!answer?.ok) return setProblem(refusal(await answer?.json().catch(() => undefined), answer?.status ?? 0).message)
    client.setQueryData(['script', lessonId], await answer.json())
    client.invalidateQueries({ queryKey: ['draft', lessonId] })
  }
  return (
    <details className="mt-2 border-t border-hairline pt-2">
      <summary className="cursor-pointer">From a script</summary>
      <div className="mt-2 flex flex-col items-start gap-2">
        <label htmlFor="script-text" className="text-quiet">
          Paste what was to be said, or choose a text, Markdown, DOCX or ODT file
        </label>
        <DropText id="script-text" rows={4} value={pasted} take={setPasted} takeFile={(file) => send(file, file.name)} />
        <div className="flex flex-wrap gap-x-4 gap-y-2">
          {pasted.trim() && (
            <Button look="link" disabled={busy} onClick={() => send(new Blob([pasted]), 'Pasted script')}>
              Lay it along the voice
            </Button>
          )}
          <ChooseFile label="Choose a script" accept=".txt,.md,.docx,.odt" take={(file) => send(file, file.name)} disabled={busy}>
            Choose a script file
          </ChooseFile>
          {(busy || lay.isPending) && <span role="status">Laying it along the voice…</span>}
          {script?.waiting && !script.laid && (
            <span role="status">
              “{script.fileName}”: the voice is listened to with its words, {Math.round(100 * script.share)} %. You can go on meanwhile.
            </span>
          )}
        </div>
      </div>
      {problem && (
        <p role="alert" className="mt-2 text-brick">
          {problem}
        </p>
      )}
      {read && (
        <div className="mt-2 text-small" role="status">
          <p>
            {Math.round(read.share * 100)} % of the script is said.{' '}
            {read.differences.length === 0
              ? 'Nothing is said otherwise.'
              : `${count(read.differences.length, 'place')} to look at, in the sheet; undo takes the captions back.`}
          </p>
        </div>
      )}
    </details>
  )
}
