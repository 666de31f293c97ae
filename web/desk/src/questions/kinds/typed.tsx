import type { Schemas } from '../../app/api'
import { Line, Lines, Tick } from '../../ui/Lines'
import { NumberField } from '../../ui/NumberField'
import { type QuestionKind, textsOf } from './kind'

type Rule = Schemas['TextRule']

const usual: Rule = { capitals: false, spaces: false, slips: true }

function RuleTicks({ rule, set }: { rule: Rule; set: (rule: Rule) => void }) {
  return (
    <div className="flex flex-wrap gap-x-4">
      <Tick label="A slip of the pen is forgiven" on={rule.slips} set={(slips) => set({ ...rule, slips })} />
      <Tick label="Capitals count" on={rule.capitals} set={(capitals) => set({ ...rule, capitals })} />
      <Tick label="Every space counts" on={rule.spaces} set={(spaces) => set({ ...rule, spaces })} />
    </div>
  )
}

export const text: QuestionKind<'text'> = {
  name: 'Short text',
  fresh: (from) => ({ kind: 'text', accepted: [{ text: textsOf(from)[0] ?? '', perCent: 100 }], rule: usual }),
  Brief: ({ asks }) => <span className="text-lagoon">{asks.accepted.map((a) => a.text).join(' · ')}</span>,
  Write: ({ asks, change }) => (
    <>
      <Lines
        lines={asks.accepted}
        name="accepted answer"
        fresh={(): Schemas['Accepted'] => ({ text: '', perCent: 100 })}
        change={(accepted) => change({ ...asks, accepted })}
        row={(accepted, set, i) => (
          <>
            <Line label={`Accepted answer ${i + 1}`} value={accepted.text} set={(text) => set({ text })} />
            <select
              aria-label={`What accepted answer ${i + 1} counts`}
              value={accepted.perCent}
              onChange={(e) => set({ perCent: Number(e.target.value) })}
              className="border border-quiet/60 bg-field px-1 py-1"
            >
              {[100, 75, 50, 25, 0].map((p) => (
                <option key={p} value={p}>
                  {p === 100 ? 'counts all' : p === 0 ? 'counts nothing' : `counts ${p} %`}
                </option>
              ))}
            </select>
            <Line label={`Said to answer ${i + 1}`} value={accepted.reply ?? ''} set={(reply) => set({ reply: reply || undefined })} className="w-40" />
          </>
        )}
      />
      <RuleTicks rule={asks.rule} set={(rule) => change({ ...asks, rule })} />
    </>
  ),
}

export const number: QuestionKind<'number'> = {
  name: 'Number',
  fresh: () => ({ kind: 'number', value: null, rule: { within: 0, perCent: false, unit: null } }),
  Brief: ({ asks }) => (
    <span className="text-lagoon">
      {asks.value} {asks.rule.within > 0 && `± ${asks.rule.within}${asks.rule.perCent ? ' %' : ''}`} {asks.rule.unit}
    </span>
  ),
  Write: ({ asks, change }) => (
    <div className="flex flex-wrap items-end gap-3">
      <div className="w-32">
        <NumberField label="Right number" value={asks.value ?? undefined} least={-1e12} most={1e12} take={(value) => change({ ...asks, value })} />
      </div>
      <div className="w-28">
        <NumberField
          label="May be off by"
          value={asks.rule.within}
          least={0}
          most={1e12}
          take={(within) => change({ ...asks, rule: { ...asks.rule, within } })}
        />
      </div>
      <Tick label="per cent of it" on={asks.rule.perCent} set={(perCent) => change({ ...asks, rule: { ...asks.rule, perCent } })} />
      <Line label="Unit" value={asks.rule.unit ?? ''} set={(unit) => change({ ...asks, rule: { ...asks.rule, unit: unit || null } })} className="w-24" />
    </div>
  ),
}

export const gaps: QuestionKind<'gaps'> = {
  name: 'Fill the gaps',
  fresh: (from) => ({ kind: 'gaps', text: textsOf(from).join(' '), rule: usual, words: null, inPart: true }),
  Brief: ({ asks }) => <span>{asks.text.replace(/\[\[([^[\]|]*)[^[\]]*\]\]/g, '[ $1 ]')}</span>,
  Write: ({ asks, change }) => (
    <>
      <textarea
        aria-label="Text with gaps"
        value={asks.text}
        rows={2}
        maxLength={2000}
        placeholder="A trailer up to [[8|eight]] m goes to lane [[B]]."
        onChange={(e) => change({ ...asks, text: e.target.value })}
        className="w-full border border-quiet/60 bg-field px-2 py-1"
      />
      <p className="text-small text-quiet">A gap is what is right between double brackets; what is accepted besides stands behind a bar.</p>
      <Tick label="Words are chosen, not typed" on={asks.words !== null} set={(on) => change({ ...asks, words: on ? [] : null })} />
      {asks.words ? (
        <Lines
          lines={asks.words.map((word) => ({ word }))}
          name="wrong word"
          fresh={() => ({ word: '' })}
          change={(words) => change({ ...asks, words: words.map((w) => w.word) })}
          row={(line, set, i) => <Line label={`Wrong word ${i + 1}`} value={line.word} set={(word) => set({ word })} />}
        />
      ) : (
        <RuleTicks rule={asks.rule} set={(rule) => change({ ...asks, rule })} />
      )}
      <Tick label="Each gap counts its part" on={asks.inPart} set={(inPart) => change({ ...asks, inPart })} />
    </>
  ),
}
