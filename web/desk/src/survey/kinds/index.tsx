import type { ReactNode } from 'react'
import { Line, Lines, lineLook, Tick } from '../../ui/Lines'
import { type Item, type ItemKind, newItemId, type Of } from '../survey'

/** One thing that a survey asks, a kind: by the names of Wexel.Core.Surveys.Kinds. */
interface Kind<K extends ItemKind> {
  name: string
  fresh: (text: string, id: string) => Of<K>
  /** As it stands in the sheet, while it is not written. */
  Brief: (props: { item: Of<K> }) => ReactNode
  /** What is written besides its text. */
  Write: (props: { item: Of<K>; change: (item: Of<K>) => void }) => ReactNode
}

const kinds: { [K in ItemKind]: Kind<K> } = {
  scale: {
    name: 'A scale',
    fresh: (text, id) => ({ kind: 'scale', id, text, steps: 5, low: 'not at all', high: 'very much' }),
    Brief: ({ item }) => (
      <>
        {item.low} <span className="font-mono">1 – {item.steps}</span> {item.high}
      </>
    ),
    Write: ({ item, change }) => (
      <span className="flex flex-wrap items-center gap-2">
        <Line label="The lowest step means" value={item.low} set={(low) => change({ ...item, low })} />
        <select aria-label="Steps" value={item.steps} onChange={(e) => change({ ...item, steps: Number(e.target.value) })} className={lineLook}>
          {[2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((steps) => (
            <option key={steps} value={steps}>
              1 to {steps}
            </option>
          ))}
        </select>
        <Line label="The highest step means" value={item.high} set={(high) => change({ ...item, high })} />
      </span>
    ),
  },
  choice: {
    name: 'A choice',
    fresh: (text, id) => ({
      kind: 'choice',
      id,
      text,
      several: false,
      options: [
        { id: newItemId(), text: '' },
        { id: newItemId(), text: '' },
      ],
    }),
    Brief: ({ item }) => <>{item.options.map((o) => o.text).join(' / ')}</>,
    Write: ({ item, change }) => (
      <>
        <Lines
          lines={item.options}
          name="option"
          fresh={() => ({ id: newItemId(), text: '' })}
          change={(options) => change({ ...item, options })}
          row={(option, set, i) => <Line label={`Option ${i + 1}`} value={option.text} set={(text) => set({ text })} />}
          ordered
        />
        <Tick label="several may be chosen" on={item.several} set={(several) => change({ ...item, several })} />
      </>
    ),
  },
  comment: {
    name: 'Free words',
    fresh: (text, id) => ({ kind: 'comment', id, text }),
    Brief: () => <>in their own words</>,
    Write: () => null,
  },
}

export const itemKinds = Object.keys(kinds) as ItemKind[]
/** A kind and what it is given always belong together. */
export const itemKind = (kind: ItemKind) => kinds[kind] as unknown as Kind<ItemKind> & { fresh: (text: string, id: string) => Item }
