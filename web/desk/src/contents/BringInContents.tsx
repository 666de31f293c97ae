import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { Dialog } from '../ui/Dialog'
import { DropText } from '../ui/DropText'
import { clock, count, exactClock } from '../ui/words'

interface Props {
  open: boolean
  onClose: () => void
  document: Document
  length: number
  /** The chapters inside the recordings. */
  inside: { at: number; title: string }[]
  edit: (change: (d: Document) => Document) => void
}

/** A whole table of contents from a text or a file, with a message for each line that cannot be read. */
export function BringInContents({ open, onClose, document, length, inside, edit }: Props) {
  const [text, setText] = useState('')
  const [reading, setReading] = useState<Schemas['ContentsReading']>()
  const read = async (value: string) => {
    setText(value)
    try {
      setReading(value.trim() ? await taken(api.POST('/api/contents/read', { body: { text: value } })) : undefined)
    } catch (refused) {
      toast.error((refused as Error).message)
    }
  }
  const readFile = async (file: File) => {
    if (file.size > 4_000_000) return toast.error(`“${file.name}” is too large for a table of contents.`)
    await read(await file.text())
  }
  const late = reading?.lines.filter((line) => line.at >= length) ?? []
  const lines = reading?.lines.filter((line) => line.at < length) ?? []
  const take = () => {
    edit((d) => ({ ...d, sections: lines.map((line) => ({ id: crypto.randomUUID(), ...line })).sort((a, b) => a.at - b.at) }))
    setText('')
    setReading(undefined)
    onClose()
  }
  return (
    <Dialog open={open} onClose={onClose} title="Bring in contents">
      <label htmlFor="pasted" className="text-quiet">
        A time and a title on each line, set in by a tab or spaces for one level under; or a file of WebVTT or JSON chapters, dropped here or chosen.
      </label>
      <DropText
        id="pasted"
        rows={9}
        value={text}
        take={read}
        takeFile={readFile}
        placeholder={'0:00 Welcome\n1:20 First steps\n  1:45 Under it'}
        className="mt-2 font-mono"
      />
      {(reading?.problems.length ?? 0) + late.length > 0 && (
        <div role="alert" className="mt-2 text-brick">
          <ul>
            {reading?.problems.map((p) => (
              <li key={p.field}>{p.sentence}</li>
            ))}
            {late.map((line) => (
              <li key={line.at}>
                “{line.title}” starts at {clock(line.at)}, after the lesson’s end at {clock(length)}.
              </li>
            ))}
          </ul>
        </div>
      )}
      {inside.length > 0 && (
        <p className="mt-2">
          The recording has {count(inside.length, 'chapter')} inside it.{' '}
          <Button look="link" onClick={() => read(inside.map((c) => `${exactClock(c.at)} ${c.title}`).join('\n'))}>
            Take them
          </Button>
        </p>
      )}
      <p className="mt-2">
        <ChooseFile label="Choose a file of contents" accept=".txt,.vtt,.json" take={readFile}>
          Choose a file
        </ChooseFile>
      </p>
      <div className="mt-4 flex items-center gap-4">
        {lines.length > 0 ? (
          <Button onClick={take}>
            {document.sections.length > 0 ? `Replace the contents by ${count(lines.length, 'section')}` : `Take ${count(lines.length, 'section')}`}
          </Button>
        ) : (
          <p className="text-quiet">Paste or type lines; what can be read is counted here.</p>
        )}
      </div>
    </Dialog>
  )
}
