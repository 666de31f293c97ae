import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, sent, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { Waiting } from '../ui/Page'
import { PictureChoice } from '../ui/PictureChoice'
import { FileNames } from './FileNames'
import { HostingPlan } from './HostingPlan'
import { MarkOnLessons } from './MarkOnLessons'
import { useHouse } from './useMark'

/** The house's mark and colour, which stand on what it makes. */
export function House() {
  const client = useQueryClient()
  const house = useHouse()
  const changed = (now: Schemas['HouseView']) => {
    client.setQueryData(['house'], now)
    client.invalidateQueries({ queryKey: ['feed'] })
  }
  const take = useMutation({ mutationFn: (file: File) => sent<Schemas['HouseView']>('/api/house/mark', file), onSuccess: changed })
  const drop = useMutation({ mutationFn: () => taken(api.DELETE('/api/house/mark')), onSuccess: changed, onError: (problem) => toast.error(problem.message) })
  const now = house.data
  return (
    <div className="flex flex-col gap-6">
      <Waiting query={house}>
        {now && (
          <>
            <PictureChoice
              title={now.name}
              picture={
                now.mark ? (
                  // On the house's colour, as on artwork: a light mark would not be seen on paper.
                  <img
                    src={now.mark}
                    alt={`The mark of ${now.name}`}
                    className="h-[100px] w-[140px] border border-hairline object-contain p-2"
                    style={{ background: now.colour }}
                  />
                ) : (
                  <p className="grid h-[100px] w-[140px] place-items-center border border-hairline text-center text-quiet">No mark yet</p>
                )
              }
              about="The house’s mark. It stands on the artwork of podcast feeds, and on lessons where you put it."
              choose={now.mark ? 'Use another mark' : 'Choose the mark'}
              take={take}
              drop={now.mark ? { label: 'Remove it', act: () => drop.mutate() } : undefined}
              wants="PNG, JPEG or SVG, the longer side 400 to 4000 pixels; best transparent around the mark."
              accept=".png,.jpg,.jpeg,.svg"
            />
            <MarkOnLessons key={now.mark} house={now} changed={changed} />
            <Colour key={now.colour} colour={now.colour} changed={changed} />
            <FileNames key={now.filePattern} house={now} changed={changed} />
            <HostingPlan key={`${now.plan.lineBitsPerSecond} ${now.plan.trafficBytesAMonth}`} plan={now.plan} changed={changed} />
          </>
        )}
      </Waiting>
    </div>
  )
}

function Colour({ colour, changed }: { colour: string; changed: (house: Schemas['HouseView']) => void }) {
  const [entered, enter] = useState(colour)
  const save = useMutation({ mutationFn: () => taken(api.PUT('/api/house', { body: { colour: entered } })), onSuccess: changed })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    save.mutate()
  }
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-[140px_1fr] items-end gap-4">
      <span aria-hidden="true" className="h-9 border border-hairline" style={{ background: colour }} />
      <div className="flex items-end gap-4">
        <Field
          label="The house’s colour; new feeds start with it"
          value={entered}
          onChange={(e) => enter(e.target.value)}
          problem={save.error?.message}
          className="max-w-[160px]"
        />
        {entered !== colour && (
          <Button type="submit" disabled={save.isPending}>
            Save the colour
          </Button>
        )}
      </div>
    </form>
  )
}
