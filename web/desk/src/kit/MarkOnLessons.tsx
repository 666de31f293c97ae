import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { MarkPlace } from './MarkPlace'

type House = Schemas['HouseView']
type Placement = Schemas['MarkPlacement']

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
  const set = (next: Placement) => {
    setPlacement(next)
    save.mutate(next)
  }
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
          {on && <MarkPlace mark={house.mark} placement={placement} usual={house.usualPlacement} set={set} />}
        </>
      )}
    </section>
  )
}
