import { useId } from 'react'
import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { NumberField } from '../ui/NumberField'
import { useMarkStyle } from './useMark'

type Placement = Schemas['MarkPlacement']

const places: [Placement['position'], string][] = [
  ['topLeft', 'top left'],
  ['top', 'top'],
  ['topRight', 'top right'],
  ['left', 'left'],
  ['middle', 'middle'],
  ['right', 'right'],
  ['bottomLeft', 'bottom left'],
  ['bottom', 'bottom'],
  ['bottomRight', 'bottom right'],
]
const picture = { width: 1280, height: 720 }

interface Props {
  /** Where its picture is fetched. */
  mark: string
  /** Its own size; without it, the house's mark. */
  size?: Schemas['PictureSize']
  placement: Placement
  usual: Placement
  set: (placement: Placement) => void
}

/** Where a mark stands on pictures, shown as it will be. */
export function MarkPlace({ mark, size, placement, usual, set }: Props) {
  const name = useId()
  const style = useMarkStyle(placement, picture, size)
  const number = (label: string, key: 'opacityPercent' | 'widthPercent' | 'distancePercent' | 'offsetX' | 'offsetY', least: number, most: number) => (
    <NumberField label={label} value={placement[key]} least={least} most={most} take={(value) => set({ ...placement, [key]: value })} />
  )
  return (
    <>
      <div className="relative mt-3 aspect-video w-full border border-ink bg-field" data-testid="mark-preview">
        <span aria-hidden="true" className="absolute inset-x-0 top-0 h-[8%] bg-[#1f3f5b]" />
        <span aria-hidden="true" className="absolute bottom-0 left-0 top-[8%] w-[14%] bg-hairline" />
        {style && <img src={mark} alt="The mark as it stands on lessons" style={style} />}
      </div>
      <div className="mt-3 grid grid-cols-[auto_1fr] gap-x-6">
        <fieldset>
          <legend className="text-quiet">Where</legend>
          <div className="mt-1 grid w-fit grid-cols-3 gap-1">
            {places.map(([position, label]) => (
              <label key={position} className="grid size-7 place-items-center border border-quiet/60 has-[:checked]:border-copper has-[:checked]:bg-copper/20">
                <input
                  type="radio"
                  name={`mark-position-${name}`}
                  aria-label={label}
                  checked={placement.position === position}
                  onChange={() => set({ ...placement, position })}
                />
              </label>
            ))}
          </div>
        </fieldset>
        <div className="grid grid-cols-2 gap-x-4 gap-y-2">
          {number('Opacity, %', 'opacityPercent', 5, 100)}
          {number('Width, % of the picture', 'widthPercent', 2, 60)}
          {number('From the edges, %', 'distancePercent', 0, 30)}
          <span />
          {number('Farther right, %', 'offsetX', -100, 100)}
          {number('Farther down, %', 'offsetY', -100, 100)}
        </div>
      </div>
      <Button look="link" className="mt-2" onClick={() => set(usual)}>
        As usual: bottom right, 50 %, a fifth of the width
      </Button>
    </>
  )
}
