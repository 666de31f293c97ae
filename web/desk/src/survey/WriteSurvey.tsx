import { Line, Lines, lineLook } from '../ui/Lines'
import { itemKind, itemKinds } from './kinds'
import { type Item, type ItemKind, newItemId, type Survey } from './survey'

/** A survey as it is written in the sheet. */
export function WriteSurvey({ survey, change }: { survey: Survey; change: (survey: Survey) => void }) {
  return (
    <div className="flex flex-col gap-2 py-1">
      <Line
        label="What it is called (“What did you think of this lesson?” without)"
        value={survey.title}
        set={(title) => change({ ...survey, title })}
        className="w-full"
      />
      <fieldset className="flex flex-wrap gap-x-6 gap-y-1">
        <legend className="sr-only">Who sees what</legend>
        {[false, true].map((named) => (
          <label key={String(named)} className="flex items-center gap-2">
            <input type="radio" name="survey-named" checked={survey.named === named} onChange={() => change({ ...survey, named })} />
            {named ? 'with their names; they are told so' : 'anonymous; nobody learns who said what'}
          </label>
        ))}
      </fieldset>
      <Lines<Item>
        lines={survey.items}
        name="item"
        fresh={() => itemKind('scale').fresh('', newItemId())}
        change={(items) => change({ ...survey, items })}
        ordered
        row={(item, _, i) => {
          const { Write } = itemKind(item.kind)
          const set = (to: Item) => change({ ...survey, items: survey.items.map((other, j) => (j === i ? to : other)) })
          return (
            <div className="flex min-w-0 flex-1 basis-full flex-col gap-1">
              <span className="flex gap-2">
                <select
                  aria-label={`Kind of item ${i + 1}`}
                  value={item.kind}
                  onChange={(e) => set(itemKind(e.target.value as ItemKind).fresh(item.text, item.id))}
                  className={lineLook}
                >
                  {itemKinds.map((kind) => (
                    <option key={kind} value={kind}>
                      {itemKind(kind).name}
                    </option>
                  ))}
                </select>
                <Line label={`What item ${i + 1} asks`} value={item.text} set={(text) => set({ ...item, text })} />
              </span>
              <Write item={item} change={set} />
            </div>
          )
        }}
      />
    </div>
  )
}
