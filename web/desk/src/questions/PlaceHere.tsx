import { useState } from 'react'
import type { Schemas } from '../app/api'
import { useKey } from '../app/keys'
import { useWork } from '../lessons/work'
import { usePlayingTime } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { NumberField } from '../ui/NumberField'
import { linkLook } from '../ui/TextLink'
import { clock, count } from '../ui/words'
import { BringInQuestions } from './BringInQuestions'
import { Draws } from './Draws'
import { kindNames, kindOf } from './kinds'
import { Pool } from './Pool'
import { added, fresh, type Kind } from './questions'

type Goal = Schemas['LessonGoal']

const rules: Record<Goal['rule'], string> = {
  watched: 'enough was watched',
  score: 'enough points were reached',
  both: 'enough was watched and enough points reached',
  answered: 'every question was answered',
}

/** What can be placed where the lesson plays, and by what it is done. */
export function PlaceHere({ select }: { select: (id: string | undefined) => void }) {
  const { lessonId, document, reel, playback, edit } = useWork()
  const now = usePlayingTime(playback)
  const [bringing, setBringing] = useState(false)
  const [pooling, setPooling] = useState(false)
  const [kind, setKind] = useState<Kind>('one')
  const { questions, goal } = document
  const place = () => {
    const question = fresh(Math.min(Math.round(playback.now()), reel.length - 1), kindOf(kind).fresh())
    edit((d) => added(d, question))
    select(question.id)
    setTimeout(() => window.document.querySelector<HTMLTextAreaElement>(`[data-question="${question.id}"]`)?.focus(), 120)
  }
  useKey('q', place)
  const points = questions.reduce((sum, q) => sum + q.points, 0)
  const setGoal = (to: Partial<Goal>) => edit((d) => ({ ...d, goal: { ...d.goal, ...to } }))
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Questions">
      <h2>
        Questions <span className="font-normal text-quiet">· {questions.length === 0 ? 'none' : `${questions.length}, ${count(points, 'point')}`}</span>
      </h2>
      <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2">
        <Button onClick={place}>Ask at {clock(now)}</Button>
        <select
          aria-label="Kind of question"
          value={kind}
          onChange={(e) => setKind(e.target.value as Kind)}
          className="border border-quiet/60 bg-field px-2 py-1.5"
        >
          {kindNames.map((name) => (
            <option key={name} value={name}>
              {kindOf(name).name}
            </option>
          ))}
        </select>
        <Button look="link" onClick={() => setBringing(true)}>
          Bring in questions
        </Button>
        <Button look="link" onClick={() => setPooling(true)}>
          From the pool
        </Button>
      </div>
      <Pool open={pooling} onClose={() => setPooling(false)} />
      <BringInQuestions open={bringing} onClose={() => setBringing(false)} />
      {questions.length === 0 ? (
        <p className="mt-2 text-quiet">The picture stops there, and goes on when it is answered. The key is Q.</p>
      ) : (
        <>
          <ul className="mt-2">
            {questions.map((q) => (
              <li key={q.id} className="flex gap-3 py-0.5">
                <span className="w-12 shrink-0 text-right font-mono text-small leading-6 text-quiet">{clock(q.at)}</span>
                <Button
                  look="link"
                  className="min-w-0 truncate"
                  onClick={() => {
                    playback.seek(q.at)
                    select(q.id)
                  }}
                >
                  {q.text || kindOf(q.asks.kind).name}
                </Button>
              </li>
            ))}
          </ul>
          <Draws />
          <p className="mt-2 flex flex-wrap gap-x-3 text-small text-quiet">
            Download as
            {['2.2', '3.0'].map((version) => (
              <a key={version} href={`/api/lessons/${lessonId}/questions-qti${version.replace('.', '')}.zip`} download className={linkLook}>
                QTI {version}
              </a>
            ))}
            <a href={`/api/lessons/${lessonId}/questions.html`} download="questions.html" className={linkLook}>
              a document for printing
            </a>
          </p>
          <label className="mt-2 flex flex-wrap items-center gap-x-2">
            Done when
            <select
              value={goal.rule}
              onChange={(e) => setGoal({ rule: e.target.value as Goal['rule'] })}
              className="max-w-full border border-quiet/60 bg-field px-2 py-1"
            >
              {Object.entries(rules).map(([rule, words]) => (
                <option key={rule} value={rule}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          {(goal.rule === 'score' || goal.rule === 'both') && (
            <div className="mt-2 w-44">
              <NumberField
                label="Passed with, in % of the points"
                value={goal.passPercent}
                least={0}
                most={100}
                take={(passPercent) => setGoal({ passPercent: Math.round(passPercent) })}
              />
            </div>
          )}
        </>
      )}
    </section>
  )
}
