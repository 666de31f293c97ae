import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { NumberField } from '../ui/NumberField'
import { useMarkStyle } from './useMark'

type House = Schemas['HouseView']
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

/** Whether and where the mark stands on lessons, shown as it will be. */
export function MarkOnLessons({ house, changed }: { house: House; changed: (house: House) => void }) {
  const [placement, setPlacement] = useState<Placement>(house.placement ?? house.usualPlacement)
  const [on, setOn] = useState(house.placement != null)
  const save = useMutation({
    mutationFn: (wanted: Placement | null) => taken(api.PUT('/api/house/mark/placement', { body: { placement: wanted } })),
    onSuccess: changed,
    onError: (problem) => {
      setOn(house.placement != null)
      toast.error(problem.message)
    },
  })
  const put = (wanted: boolean) => {
    // Shown at once; the server says so a moment later.
    setOn(wanted)
    save.mutate(wanted ? placement : null)
  }
  const style = useMarkStyle(on ? placement : null, picture)
  const set = (change: Partial<Placement>) => {
    const next = { ...placement, ...change }
    setPlacement(next)
    save.mutate(next)
  }
  const number = (label: string, key: 'opacityPercent' | 'widthPercent' | 'distancePercent' | 'offsetX' | 'offsetY', least: number, most: number) => (
    <NumberField label={label} value={placement[key]} least={least} most={most} take={(value) => set({ [key]: value })} />
  )
  return (
    <section aria-label="Mark on lessons">
      <h3 className="font-bold">On lessons</h3>
      {!house.mark ? (
        <p className="text-quiet">Choose a mark first; then it can be put on the picture of lessons.</p>
      ) : (
        <>
          <label className="mt-1 flex items-center gap-2">
            <input type="checkbox" checked={on} onChange={(e) => put(e.target.checked)} />
            Put it on the picture of lessons
          </label>
          <p className="text-quiet">A lesson can do without it, in its Tidy stage. Lessons that are rendered already change when they are rendered again.</p>
          {on && (
            <>
              <div className="relative mt-3 aspect-video w-full border border-ink bg-field" data-testid="mark-preview">
                <span aria-hidden="true" className="absolute inset-x-0 top-0 h-[8%] bg-[#1f3f5b]" />
                <span aria-hidden="true" className="absolute bottom-0 left-0 top-[8%] w-[14%] bg-hairline" />
                {style && house.mark && <img src={house.mark} alt="The mark as it stands on lessons" style={style} />}
              </div>
              <div className="mt-3 grid grid-cols-[auto_1fr] gap-x-6">
                <fieldset>
                  <legend className="text-quiet">Where</legend>
                  <div className="mt-1 grid w-fit grid-cols-3 gap-1">
                    {places.map(([position, label]) => (
                      <label
                        key={position}
                        className="grid size-7 place-items-center border border-quiet/60 has-[:checked]:border-copper has-[:checked]:bg-copper/20"
                      >
                        <input
                          type="radio"
                          name="mark-position"
                          aria-label={label}
                          checked={placement.position === position}
                          onChange={() => set({ position })}
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
              <Button look="link" className="mt-2" onClick={() => set(house.usualPlacement)}>
                As usual: bottom right, 50 %, a fifth of the width
              </Button>
            </>
          )}
        </>
      )}
    </section>
  )
}
