import { useState } from 'react'
import { toast } from 'sonner'
import { api, refusal, type Schemas, taken } from '../app/api'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { Dialog } from '../ui/Dialog'
import { DropText } from '../ui/DropText'
import { clock, count } from '../ui/words'
import { kindOf } from './kinds'
import { added } from './questions'

const largest = 20_000_000

/** Questions from a list that another program wrote: what can be read is shown, and what cannot is named line by line. */
export function BringInQuestions({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { edit, playback, reel } = useWork()
  const [text, setText] = useState('')
  const [list, setList] = useState<Schemas['QuestionList']>()
  const read = async (value: string) => {
    setText(value)
    try {
      setList(value.trim() ? await taken(api.POST('/api/questions/read', { body: { text: value } })) : undefined)
    } catch (refused) {
      toast.error((refused as Error).message)
    }
  }
  const readFile = async (file: File) => {
    if (file.size > largest) return toast.error(`“${file.name}” is too large for questions.`)
    setText('')
    const answer = await fetch('/api/questions/file', { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: file }).catch(
      () => undefined,
    )
    if (!answer) return toast.error('The server is not reached. Try again.')
    if (!answer.ok) return toast.error(refusal(await answer.json(), answer.status).message)
    setList(await answer.json())
  }
  const at = Math.min(Math.round(playback.now()), reel.length - 1)
  const take = (when: 'here' | 'lessonEnd') => {
    edit((d) => (list?.questions ?? []).reduce((sum, question) => added(sum, { ...question, id: crypto.randomUUID(), at, when }), d))
    setText('')
    setList(undefined)
    onClose()
  }
  return (
    <Dialog open={open} onClose={onClose} title="Bring in questions">
      <label htmlFor="listed" className="text-quiet">
        A list in GIFT, Aiken or CSV, pasted, dropped here or chosen; or a file of QTI. A line of CSV has the question, what is right, what is wrong; several
        with bars between.
      </label>
      <DropText
        id="listed"
        rows={9}
        value={text}
        take={read}
        takeFile={readFile}
        placeholder={'Which lane is for 7.4 m? { =Lane B ~Lane A ~Lane C }\n\nCars drive over the gangway. {T}'}
        className="mt-2 font-mono"
      />
      {(list?.problems.length ?? 0) > 0 && (
        <div role="alert" className="mt-2 max-h-32 overflow-auto text-brick">
          <ul>
            {list?.problems.map((p) => (
              <li key={p.sentence}>{p.sentence}</li>
            ))}
          </ul>
        </div>
      )}
      {list && list.questions.length > 0 && (
        <ol className="mt-2 max-h-48 overflow-auto border-t border-hairline">
          {list.questions.map((q) => (
            <li key={q.id} className="border-b border-hairline py-1">
              {q.text || kindOf(q.asks.kind).name} <span className="text-small text-quiet">{kindOf(q.asks.kind).name.toLowerCase()}</span>
            </li>
          ))}
        </ol>
      )}
      <p className="mt-2">
        <ChooseFile label="Choose a list of questions" accept=".txt,.gift,.csv,.tsv,.xml,.zip" take={readFile}>
          Choose a file
        </ChooseFile>
      </p>
      <div className="mt-4 flex flex-wrap items-center gap-4">
        {list && list.questions.length > 0 ? (
          <>
            <Button onClick={() => take('lessonEnd')}>Ask {count(list.questions.length, 'question')} at the end</Button>
            <Button look="link" onClick={() => take('here')}>
              Place all at {clock(at)}
            </Button>
            <span className="text-quiet">{list.format}</span>
          </>
        ) : (
          <p className="text-quiet">Paste or choose a list; what can be read is shown here.</p>
        )}
      </div>
    </Dialog>
  )
}
