import { useState } from 'react'
import { Button } from '../ui/Button'
import { useAnswer, type WaitingNote } from './useNotes'

const says: Record<WaitingNote['kind'], string> = { outOfDate: 'Out of date', notUnderstood: 'Not understood' }

/** A learner's note where it was left, until it is answered. */
export function Note({ note, lessonId }: { note: WaitingNote; lessonId: string }) {
  const [text, setText] = useState<string>()
  const [missing, setMissing] = useState(false)
  const answer = useAnswer(lessonId)
  const send = (said: string) => answer.mutate({ note: note.id, text: said })
  const from = note.name ?? 'somebody with the link'
  return (
    <div data-beside data-note className="mb-1 ml-[92px] mr-4 mt-0.5 border border-copper px-3 py-1">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <span>
          <b>{says[note.kind]}</b>
          {note.text !== '' && <span dir="auto">: {note.text}</span>}{' '}
          <span className="text-quiet">
            {from}, {new Date(note.leftAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
            {note.at == null && ' · the recording that it was of is not in the lesson any more'}
          </span>
        </span>
        {text === undefined && (
          <>
            <Button look="link" onClick={() => setText('')}>
              Answer
            </Button>
            <Button look="link" onClick={() => send('')}>
              Seen to
            </Button>
          </>
        )}
      </div>
      {text !== undefined && (
        <form
          className="my-1 flex flex-wrap items-start gap-x-4 gap-y-1"
          onSubmit={(event) => {
            event.preventDefault()
            if (text.trim() === '') setMissing(true)
            else send(text)
          }}
        >
          <textarea
            // biome-ignore lint/a11y/noAutofocus: whoever presses Answer goes on to type it
            autoFocus
            rows={2}
            maxLength={1000}
            className="w-full border border-quiet bg-field px-2 py-1"
            aria-label={`Answer to ${from}`}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <Button type="submit">Send the answer</Button>
          <Button look="link" onClick={() => setText(undefined)}>
            Not now
          </Button>
          <span className="text-small text-quiet">
            {note.tellsThem ? 'It stands below their note, and is mailed to them.' : 'It stands below their note, where they left it.'}
          </span>
        </form>
      )}
      {missing && text?.trim() === '' && <p className="text-brick">Write the answer first, or mark the note as seen to.</p>}
      {answer.error && <p className="text-brick">{answer.error.message}</p>}
    </div>
  )
}
