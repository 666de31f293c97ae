import { Line, Lines, Tick } from '../../ui/Lines'
import { newId } from '../questions'
import { type QuestionKind, textsOf } from './kind'

export const order: QuestionKind<'order'> = {
  name: 'Put in order',
  fresh: (from) => {
    const texts = textsOf(from)
    return { kind: 'order', items: (texts.length > 1 ? texts : ['', '']).map((text) => ({ id: newId(), text })), inPart: false }
  },
  Brief: ({ asks }) => <span>{asks.items.map((i) => i.text || '…').join(' → ')}</span>,
  Write: ({ asks, change }) => (
    <>
      <p className="text-small text-quiet">In the right order; learners get them mixed.</p>
      <Lines
        lines={asks.items}
        name="line"
        ordered
        fresh={() => ({ id: newId(), text: '' })}
        change={(items) => change({ ...asks, items })}
        row={(item, set, i) => <Line label={`Line ${i + 1}`} value={item.text} set={(text) => set({ text })} />}
      />
      <Tick label="What stands where it belongs counts its part" on={asks.inPart} set={(inPart) => change({ ...asks, inPart })} />
    </>
  ),
}

export const match: QuestionKind<'match'> = {
  name: 'Match pairs',
  fresh: (from) => {
    const texts = textsOf(from)
    return {
      kind: 'match',
      pairs: (texts.length > 1 ? texts : ['', '']).map((text) => ({ id: newId(), text, with: newId(), withText: '' })),
      others: [],
      inPart: false,
    }
  },
  Brief: ({ asks }) => <span>{asks.pairs.map((p) => `${p.text || '…'} – ${p.withText || '…'}`).join('; ')}</span>,
  Write: ({ asks, change }) => (
    <>
      <Lines
        lines={asks.pairs}
        name="pair"
        fresh={() => ({ id: newId(), text: '', with: newId(), withText: '' })}
        change={(pairs) => change({ ...asks, pairs })}
        row={(pair, set, i) => (
          <>
            <Line label={`Left ${i + 1}`} value={pair.text} set={(text) => set({ text })} />
            <Line label={`Right ${i + 1}`} value={pair.withText} set={(withText) => set({ withText })} />
          </>
        )}
      />
      <Lines
        lines={asks.others ?? []}
        name="line that belongs to nothing"
        fresh={() => ({ id: newId(), text: '' })}
        change={(others) => change({ ...asks, others })}
        row={(other, set, i) => <Line label={`Belongs to nothing ${i + 1}`} value={other.text} set={(text) => set({ text })} />}
      />
      <Tick label="Each pair counts its part" on={asks.inPart} set={(inPart) => change({ ...asks, inPart })} />
    </>
  ),
}
