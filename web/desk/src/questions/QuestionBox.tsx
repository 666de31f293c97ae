import { GripVertical } from 'lucide-react'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import { useWork } from '../lessons/work'
import { inBrief, useResults } from '../results/useResults'
import { momentAt } from '../sheet/moments'
import { Button } from '../ui/Button'
import { clock } from '../ui/words'
import { kindOf } from './kinds'
import { added, changed, type Question, termsOf, without } from './questions'
import { TryIt } from './TryIt'
import { useLook } from './useLooks'
import { WriteQuestion } from './WriteQuestion'

interface Props {
  question: Question
  struck: boolean
  open: boolean
  select: (id: string | undefined) => void
}

/** A question where it is asked: read there, written there, tried there. */
export function QuestionBox({ question, struck, open, select }: Props) {
  const { lessonId, edit, reel, playback } = useWork()
  const [trying, setTrying] = useState(false)
  const look = useLook(question)
  const came = useResults(lessonId).data?.questions.find((q) => q.id === question.id)
  const { name, Brief } = kindOf(question.asks.kind)
  const at = clock(question.at)
  const change = (how: (q: Question) => Question) => edit((d) => changed(d, question.id, how))
  const move = (to: number) => change((q) => ({ ...q, at: Math.min(Math.max(0, Math.round(to)), reel.length - 1) }))
  const byKey = (event: KeyboardEvent) => {
    const by = { ArrowUp: -1000, ArrowDown: 1000 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    move(question.at + (event.shiftKey ? by / 10 : by))
  }
  const drag = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    const drop = (up: globalThis.PointerEvent) => {
      const to = momentAt(up.clientX, up.clientY)
      if (to !== undefined && Math.abs(up.clientY - event.clientY) > 8) move(to)
    }
    event.currentTarget.addEventListener('pointerup', drop, { once: true })
  }
  const copy = () => {
    const made = { ...question, id: crypto.randomUUID(), at: Math.min(question.at + 1000, reel.length - 1) }
    edit((d) => added(d, made))
    select(made.id)
  }
  return (
    <div
      data-beside
      data-question-box={question.id}
      className={`ml-[92px] mr-4 mb-2 mt-1 border bg-field px-4 py-2 ${open ? 'border-copper' : 'border-ink'} ${struck ? 'opacity-60' : ''}`}
    >
      <p className="flex flex-wrap items-baseline gap-x-2 text-small text-quiet">
        <button
          type="button"
          aria-label={`Move the question at ${at}: drag it, or press the arrow keys`}
          onPointerDown={drag}
          onKeyDown={byKey}
          className="cursor-grab touch-none self-center text-quiet hover:text-copper"
        >
          <GripVertical aria-hidden="true" size={14} />
        </button>
        <button type="button" className="font-mono hover:text-copper" onClick={() => playback.seek(question.at)} aria-label={`Go to ${at}`}>
          {at}
        </button>
        <span className={struck ? 'line-through' : ''}>
          {[`question, ${name.toLowerCase()}`, ...termsOf(question)].join(' · ')}
          {struck && ' · in what is cut'}
        </span>
      </p>
      {open ? (
        <WriteQuestion question={question} change={change} />
      ) : (
        <>
          {question.text && <p className="whitespace-pre-line text-large font-bold">{question.text}</p>}
          <div>
            <Brief asks={question.asks} />
            {question.again !== null && <span className="ml-4 text-quiet">wrong: back to {clock(question.again)}</span>}
          </div>
        </>
      )}
      {(look?.faults.length ?? 0) > 0 && (
        <ul className="mt-1 text-amber" aria-label="What it lacks">
          {look?.faults.map((fault) => (
            <li key={fault}>{fault}</li>
          ))}
        </ul>
      )}
      <p className="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 [&>button]:min-h-6 [&>button]:min-w-6">
        <Button look="link" aria-label={open ? 'Close the question' : `Change the question at ${at}`} onClick={() => select(open ? undefined : question.id)}>
          {open ? 'Done' : 'Change'}
        </Button>
        {look && look.faults.length === 0 && !trying && (
          <Button look="link" aria-label={`Try the question at ${at}`} onClick={() => setTrying(true)}>
            Try it
          </Button>
        )}
        <Button look="link" aria-label={`Copy the question at ${at}`} onClick={copy}>
          Copy
        </Button>
        <Button
          look="link"
          aria-label={`Delete the question at ${at}`}
          onClick={() => {
            edit((d) => without(d, question.id))
            select(undefined)
          }}
        >
          Delete
        </Button>
        {came && <span className={came.missedByMost ? 'text-amber' : 'text-quiet'}>{inBrief(came)}</span>}
      </p>
      {trying && look && <TryIt look={look} at={question.at} close={() => setTrying(false)} />}
    </div>
  )
}
