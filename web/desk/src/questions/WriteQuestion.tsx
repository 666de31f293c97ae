import { useEffect, useState } from 'react'
import { useWork } from '../lessons/work'
import { ShownPicture } from '../picture/ShownPicture'
import { Button } from '../ui/Button'
import { Line, Lines, lineLook, Tick } from '../ui/Lines'
import { NumberField } from '../ui/NumberField'
import { clock, exactClock } from '../ui/words'
import { kindNames, kindOf } from './kinds'
import { type Kind, type Question, whenWords } from './questions'

const longest = { question: 2000, reply: 1000 }
const choiceLook = 'border border-quiet/60 bg-field px-2 py-1'

/** A question as it is written, right where it is asked. */
export function WriteQuestion({ question, change }: { question: Question; change: (how: (q: Question) => Question) => void }) {
  const { playback } = useWork()
  const set = (to: Partial<Question>) => change((q) => ({ ...q, ...to }))
  const { Write } = kindOf(question.asks.kind)
  const onPicture = question.asks.kind === 'place'
  return (
    <div className="flex flex-col gap-2">
      <textarea
        aria-label="What is asked"
        data-question={question.id}
        value={question.text}
        rows={question.text.length > 80 ? 3 : 1}
        maxLength={longest.question}
        placeholder={question.asks.kind === 'gaps' ? 'What is asked; may be empty' : 'What is asked'}
        onChange={(e) => set({ text: e.target.value })}
        className="w-full border border-quiet/60 bg-field px-2 py-1 text-large font-bold placeholder:font-normal"
      />
      <Write asks={question.asks} change={(asks) => set({ asks })} question={question} />
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 border-t border-hairline pt-2">
        <label className="flex flex-col gap-1 text-quiet">
          Kind
          <select
            value={question.asks.kind}
            onChange={(e) => set({ asks: kindOf(e.target.value as Kind).fresh(question.asks), when: e.target.value === 'place' ? 'here' : question.when })}
            className={`${choiceLook} text-ink`}
          >
            {kindNames.map((kind) => (
              <option key={kind} value={kind}>
                {kindOf(kind).name}
              </option>
            ))}
          </select>
        </label>
        {!onPicture && (
          <label className="flex flex-col gap-1 text-quiet">
            Asked
            <select value={question.when} onChange={(e) => set({ when: e.target.value as Question['when'] })} className={`${choiceLook} text-ink`}>
              {Object.entries(whenWords).map(([value, words]) => (
                <option key={value} value={value}>
                  {words.replace('asked ', '')}
                </option>
              ))}
            </select>
          </label>
        )}
        <div className="w-16">
          <NumberField label="Points" value={question.points} least={0} most={1000} take={(points) => set({ points })} />
        </div>
        <label className="flex flex-col gap-1 text-quiet">
          Tries
          <select value={question.tries} onChange={(e) => set({ tries: Number(e.target.value) })} className={`${choiceLook} text-ink`}>
            {[1, 2, 3, 4, 5, 0].map((tries) => (
              <option key={tries} value={tries}>
                {tries === 0 ? 'any number' : tries}
              </option>
            ))}
          </select>
        </label>
        {question.tries !== 1 && (
          <div className="w-28">
            <NumberField label="% less each try" value={question.penalty} least={0} most={100} take={(penalty) => set({ penalty: Math.round(penalty) })} />
          </div>
        )}
        <Tick label="must be answered" on={question.must} set={(must) => set({ must })} />
      </div>
      <div className="flex flex-wrap gap-3">
        <label className="flex flex-1 basis-52 flex-col gap-1 text-quiet">
          Said when it is right
          <input value={question.right} maxLength={longest.reply} onChange={(e) => set({ right: e.target.value })} className={`${lineLook} text-ink`} />
        </label>
        <label className="flex flex-1 basis-52 flex-col gap-1 text-quiet">
          Said when it is not
          <input value={question.wrong} maxLength={longest.reply} onChange={(e) => set({ wrong: e.target.value })} className={`${lineLook} text-ink`} />
        </label>
      </div>
      <p className="flex flex-wrap items-baseline gap-x-5 gap-y-1 [&>button]:min-h-6">
        {question.again === null ? (
          <span className="text-quiet">No place to watch again.</span>
        ) : (
          <span>
            Watch again from{' '}
            <Button look="link" className="font-mono" onClick={() => playback.seek(question.again ?? 0)}>
              {clock(question.again)}
            </Button>
          </span>
        )}
        <Button look="link" onClick={() => set({ again: Math.round(playback.now()) })}>
          Take the playing position
        </Button>
        {question.again !== null && (
          <Button look="link" onClick={() => set({ again: null })}>
            Without it
          </Button>
        )}
      </p>
      <ShownPicture picture={question.picture} set={(picture) => set({ picture })} />
      <Tags tags={question.tags ?? []} set={(tags) => set({ tags })} />
      <Lines
        lines={(question.hints ?? []).map((hint) => ({ hint }))}
        name="hint"
        fresh={() => ({ hint: '' })}
        change={(hints) => set({ hints: hints.map((h) => h.hint) })}
        row={(line, setLine, i) => <Line label={`Hint ${i + 1}`} value={line.hint} set={(hint) => setLine({ hint })} />}
      />
      <p className="flex flex-wrap items-baseline gap-x-5 gap-y-1 [&>button]:min-h-6">
        <span className="text-quiet">
          At <span className="font-mono text-ink">{exactClock(question.at)}</span>
        </span>
        <Button look="link" onClick={() => set({ at: Math.round(playback.now()) })}>
          Move to the playing position
        </Button>
        <Button look="link" aria-label="One second earlier" onClick={() => set({ at: Math.max(0, question.at - 1000) })}>
          − 1 s
        </Button>
        <Button look="link" aria-label="One second later" onClick={() => set({ at: question.at + 1000 })}>
          + 1 s
        </Button>
      </p>
    </div>
  )
}

/** Tags on one line; read when the line is left, so that a comma can be typed. */
function Tags({ tags, set }: { tags: readonly string[]; set: (tags: string[]) => void }) {
  const known = tags.join(', ')
  const [typed, setTyped] = useState(known)
  useEffect(() => setTyped(known), [known])
  const take = () => {
    const read = [...new Set(typed.split(',').map((tag) => tag.trim().toLowerCase()))].filter(Boolean)
    if (read.join() !== tags.join()) set(read)
  }
  return (
    <label className="flex flex-wrap items-baseline gap-2">
      Tags, with commas between
      <input
        value={typed}
        maxLength={400}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === 'Enter' && take()}
        className={`${lineLook} min-w-40 flex-1`}
      />
    </label>
  )
}
