import { useMutation } from '@tanstack/react-query'
import { type Schemas, sent } from '../app/api'
import { MarkPlace } from '../kit/MarkPlace'
import { useHouse } from '../kit/useMark'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { useSheet } from './Setting'

type Picture = Schemas['PictureSettings']

/** A mark that a profile brings in the place of the house's: chosen, placed, taken away. */
export function OwnMark({ picture, change }: { picture: Picture; change: (picture: Picture) => void }) {
  const house = useHouse().data
  const { faultAt, locked } = useSheet()
  const own = picture.ownMark
  const set = (ownMark: Picture['ownMark']) => change({ ...picture, ownMark })
  const take = useMutation({
    mutationFn: (file: File) => sent<Schemas['TakenMark']>('/api/profiles/marks', file),
    onSuccess: (taken) => house && set({ key: taken.key, size: taken.size, placement: own?.placement ?? house.usualPlacement }),
  })
  const fault = faultAt('picture.ownMark')
  if (locked && !own) return null
  return (
    <div className="border-b border-hairline py-2">
      <p className="flex flex-wrap items-baseline gap-x-4">
        <span className="w-[134px]">Mark of its own</span>
        {!locked && (
          <ChooseFile label="Choose a picture for the profile’s mark" accept=".png,.jpg,.jpeg,.svg" take={take.mutate} disabled={take.isPending}>
            {own ? 'Choose another picture' : 'Choose a picture'}
          </ChooseFile>
        )}
        {own && !locked && (
          <Button look="link" onClick={() => set(null)}>
            Take it away
          </Button>
        )}
        <span className="text-small text-quiet">
          {own
            ? 'It stands in the place of the house’s mark, where a lesson wants one.'
            : 'Usual: none, the house’s mark. Another mark encodes the picture again.'}
        </span>
      </p>
      {(take.error || fault) && (
        <p role="alert" className="mt-1 text-brick">
          {take.error?.message ?? fault}
        </p>
      )}
      {own && house && (
        <fieldset disabled={locked} className="max-w-[560px]">
          <MarkPlace
            mark={`/api/profiles/marks/${own.key}`}
            size={own.size}
            placement={own.placement}
            usual={house.usualPlacement}
            set={(placement) => set({ ...own, placement })}
          />
        </fieldset>
      )}
    </div>
  )
}
