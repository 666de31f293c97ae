import type { Schemas } from '../../app/api'
import { Line, Lines, Tick } from '../../ui/Lines'
import { newId } from '../questions'
import { type QuestionKind, textsOf } from './kind'

type Option = Schemas['Option']

const freshOption = (text = '', right = false): Option => ({ id: newId(), text, right })

function freshOptions(from: Parameters<typeof textsOf>[0]): Option[] {
  if (from?.kind === 'one' || from?.kind === 'several') return from.options
  const texts = textsOf(from)
  return texts.length > 1 ? texts.map((text, i) => freshOption(text, i === 0)) : [freshOption(texts[0], true), freshOption()]
}

function OptionLines({ options, change, one }: { options: readonly Option[]; change: (options: Option[]) => void; one: boolean }) {
  return (
    <Lines
      lines={options}
      name="answer"
      ordered
      fresh={() => freshOption()}
      change={change}
      row={(option, set, i) => (
        <>
          <label className="flex items-center gap-1 text-small">
            <input
              type="checkbox"
              checked={option.right}
              aria-label={`Answer ${i + 1} is right`}
              onChange={(e) =>
                one && e.target.checked && options.filter((o) => o.right).length === 1
                  ? change(options.map((o, j) => ({ ...o, right: j === i })))
                  : set({ right: e.target.checked })
              }
            />
            right
          </label>
          <Line label={`Answer ${i + 1}`} value={option.text} set={(text) => set({ text })} />
          <Line label={`Said to answer ${i + 1}`} value={option.reply ?? ''} set={(reply) => set({ reply: reply || undefined })} className="w-44" />
        </>
      )}
    />
  )
}

const Brief = ({ asks }: { asks: { options: readonly Option[] } }) => (
  <span className="flex flex-wrap gap-x-4">
    {asks.options.map((o) => (
      <span key={o.id} className={o.right ? 'font-bold text-lagoon' : ''}>
        {o.right ? '◉' : '○'} {o.text || '…'}
      </span>
    ))}
  </span>
)

export const one: QuestionKind<'one'> = {
  name: 'One of several',
  fresh: (from) => ({ kind: 'one', options: freshOptions(from), shuffle: false }),
  Brief,
  Write: ({ asks, change }) => (
    <>
      <OptionLines one options={asks.options} change={(options) => change({ ...asks, options })} />
      <Tick label="Each learner gets them in another order" on={asks.shuffle} set={(shuffle) => change({ ...asks, shuffle })} />
    </>
  ),
}

export const several: QuestionKind<'several'> = {
  name: 'Several of several',
  fresh: (from) => ({ kind: 'several', options: freshOptions(from), shuffle: false, inPart: false }),
  Brief,
  Write: ({ asks, change }) => (
    <>
      <OptionLines one={false} options={asks.options} change={(options) => change({ ...asks, options })} />
      <Tick label="Each learner gets them in another order" on={asks.shuffle} set={(shuffle) => change({ ...asks, shuffle })} />
      <Tick label="What is right counts in part, what is wrong takes as much away" on={asks.inPart} set={(inPart) => change({ ...asks, inPart })} />
    </>
  ),
}

export const truth: QuestionKind<'truth'> = {
  name: 'True or false',
  fresh: () => ({ kind: 'truth', true: null }),
  Brief: ({ asks }) => <span className="font-bold text-lagoon">{asks.true === null ? '' : asks.true ? 'true' : 'false'}</span>,
  Write: ({ asks, change, question }) => (
    <>
      <fieldset className="flex gap-4">
        <legend className="sr-only">It is</legend>
        {([true, false] as const).map((value) => (
          <label key={String(value)} className="flex items-center gap-1">
            <input type="radio" name={`truth-${question.id}`} checked={asks.true === value} onChange={() => change({ ...asks, true: value })} />
            {value ? 'It is true' : 'It is false'}
          </label>
        ))}
      </fieldset>
      <div className="mt-1 flex gap-3">
        <Line label="Said to “true”" value={asks.replyToTrue ?? ''} set={(text) => change({ ...asks, replyToTrue: text || undefined })} />
        <Line label="Said to “false”" value={asks.replyToFalse ?? ''} set={(text) => change({ ...asks, replyToFalse: text || undefined })} />
      </div>
    </>
  ),
}
