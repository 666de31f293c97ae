import { useMutation } from '@tanstack/react-query'
import { type Schemas, sent } from '../app/api'
import { PictureChoice } from '../ui/PictureChoice'

interface Props {
  field: Schemas['OutletField']
  value: string
  change: (value: string | null) => void
  problem?: string
}

/** A picture that an outlet is known by. */
export function PictureField({ field, value, change, problem }: Props) {
  const take = useMutation({
    mutationFn: (file: File) => sent<Schemas['GivenPictureView']>('/api/pictures', file),
    onSuccess: (taken) => change(taken.key),
  })
  return (
    <PictureChoice
      title={field.label}
      picture={
        value ? (
          <img src={`/api/pictures/${value}.jpg`} alt="What it is known by" className="w-full self-start border border-hairline" />
        ) : (
          <p className="self-start border border-dashed border-hairline p-2 text-small text-quiet">No picture</p>
        )
      }
      about={field.help}
      choose={value ? 'Choose another' : 'Choose a picture'}
      take={{ ...take, error: take.error ?? (problem ? new Error(problem) : null) }}
      drop={value ? { label: 'Leave it out', act: () => change(null) } : undefined}
      wants="JPEG or PNG; the middle of it is shown, 16 wide and 9 high."
    />
  )
}
