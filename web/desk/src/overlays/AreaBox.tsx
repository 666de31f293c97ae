import { useLacks } from '../lessons/useLacks'
import { useWork } from '../lessons/work'
import { DrawShapes } from '../sheet/DrawShapes'
import { PlacedBox } from '../sheet/PlacedBox'
import { movedTo } from '../sheet/placed'
import { lineLook } from '../ui/Lines'
import { clock } from '../ui/words'
import { actionNames, actionOf } from './actions'
import { type ActionKind, type Area, ofAreas } from './overlays'
import { Stretch } from './Stretch'

interface Props {
  area: Area
  struck: boolean
  open: boolean
  select: (id: string | undefined) => void
}

/** A place to click, where its stretch begins. */
export function AreaBox({ area, struck, open, select }: Props) {
  const { edit, reel } = useWork()
  const { Brief } = actionOf(area.action.kind)
  const lacks = useLacks('area', area.id)
  const copy = () => {
    const made = { ...area, id: crypto.randomUUID(), span: movedTo(area.span, area.span.start + 1000, reel.length) }
    edit((d) => ofAreas.added(d, made))
    select(made.id)
  }
  return (
    <PlacedBox
      name="area"
      id={area.id}
      at={area.span.start}
      terms={['place to click', ...(area.action.kind === 'wait' ? [] : [`until ${clock(area.span.end)}`])]}
      struck={struck}
      open={open}
      select={select}
      move={(at) => edit((d) => ofAreas.changed(d, area.id, { span: movedTo(area.span, at, reel.length) }))}
      copy={copy}
      remove={() => edit((d) => ofAreas.without(d, area.id))}
      lacks={lacks}
    >
      {open ? (
        <Write area={area} />
      ) : (
        <p>
          <b>{area.text || 'a place'}</b> · <Brief action={area.action} />
        </p>
      )}
    </PlacedBox>
  )
}

function Write({ area }: { area: Area }) {
  const { edit, playback } = useWork()
  const set = (to: Partial<Area>) => edit((d) => ofAreas.changed(d, area.id, to))
  const { Write: WriteAction } = actionOf(area.action.kind)
  return (
    <div className="flex flex-col gap-2 py-1">
      <label className="flex flex-col gap-1 text-quiet">
        What is there, in a few words: learners who see no picture choose it by them
        <input
          data-area={area.id}
          value={area.text}
          maxLength={200}
          onChange={(e) => set({ text: e.target.value })}
          className={`${lineLook} text-large font-bold text-ink`}
        />
      </label>
      <DrawShapes at={area.span.start} areas={[area]} one add={(shape) => set({ shape })} change={(_, shape) => set({ shape })} />
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <label className="flex items-baseline gap-2">
          Clicked, it
          <select
            value={area.action.kind}
            onChange={(e) => set({ action: actionOf(e.target.value as ActionKind).fresh(Math.round(playback.now())) })}
            className={lineLook}
          >
            {actionNames.map((kind) => (
              <option key={kind} value={kind}>
                {actionOf(kind).name}
              </option>
            ))}
          </select>
        </label>
        <div className="min-w-40 flex-1">
          <WriteAction action={area.action} change={(action) => set({ action })} />
        </div>
      </div>
      <Stretch span={area.span} set={(span) => set({ span })} />
    </div>
  )
}
