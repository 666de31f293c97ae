import { useState } from 'react'
import { useWork } from '../lessons/work'
import { shownAt } from '../picture/ShownPicture'
import { inBrief, useResults } from '../results/useResults'
import { PlacedBox } from '../sheet/PlacedBox'
import { Button } from '../ui/Button'
import { clock } from '../ui/words'
import { kindOf } from './kinds'
import { useKeeping } from './Pool'
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
  const { lessonId, edit, reel } = useWork()
  const [trying, setTrying] = useState(false)
  const look = useLook(question)
  const keeping = useKeeping()
  const came = useResults(lessonId).data?.questions.find((q) => q.id === question.id)
  const { name, Brief } = kindOf(question.asks.kind)
  const change = (how: (q: Question) => Question) => edit((d) => changed(d, question.id, how))
  const copy = () => {
    const made = { ...question, id: crypto.randomUUID(), at: Math.min(question.at + 1000, reel.length - 1) }
    edit((d) => added(d, made))
    select(made.id)
  }
  return (
    <PlacedBox
      name="question"
      id={question.id}
      at={question.at}
      terms={[`question, ${name.toLowerCase()}`, ...termsOf(question)]}
      struck={struck}
      open={open}
      select={select}
      move={(at) => change((q) => ({ ...q, at }))}
      copy={copy}
      remove={() => edit((d) => without(d, question.id))}
      lacks={look?.faults ?? []}
      more={
        look &&
        look.faults.length === 0 &&
        !trying && (
          <>
            <Button look="link" aria-label={`Try the question at ${clock(question.at)}`} onClick={() => setTrying(true)}>
              Try it
            </Button>
            {question.asks.kind !== 'place' && (
              <Button look="link" aria-label={`Keep the question at ${clock(question.at)} in the pool`} onClick={() => keeping.mutate(question)}>
                Keep in the pool
              </Button>
            )}
          </>
        )
      }
      known={came && <span className={came.missedByMost ? 'text-amber' : 'text-quiet'}>{inBrief(came)}</span>}
      below={trying && look && <TryIt look={look} at={question.at} close={() => setTrying(false)} />}
    >
      {open ? (
        <WriteQuestion question={question} change={change} />
      ) : (
        <>
          {question.picture && <img src={shownAt(question.picture)} alt="" className="float-right ml-4 max-h-20 max-w-36" />}
          {question.text && <p className="whitespace-pre-line text-large font-bold">{question.text}</p>}
          <div>
            <Brief asks={question.asks} />
            {question.again !== null && <span className="ml-4 text-quiet">wrong: back to {clock(question.again)}</span>}
          </div>
        </>
      )}
    </PlacedBox>
  )
}
