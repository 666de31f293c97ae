import { useMutation } from '@tanstack/react-query'
import { toast } from 'sonner'
import { refusal, type Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'

/** Where a picture that was taken lies. */
export const shownAt = (key: string) => `/api/pictures/shown/${key}.jpg`

/** A picture that stands with a question or a note. */
export function ShownPicture({ picture, set }: { picture: string | null | undefined; set: (picture: string | undefined) => void }) {
  const take = useMutation({
    mutationFn: async (file: File): Promise<Schemas['GivenPictureView']> => {
      const answer = await fetch('/api/pictures/shown', { method: 'PUT', headers: { 'Content-Type': 'application/octet-stream' }, body: file })
      if (!answer.ok) throw refusal(await answer.json(), answer.status)
      return answer.json()
    },
    onSuccess: ({ key }) => set(key),
    onError: (refused) => toast.error(refused.message),
  })
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 [&>button]:min-h-6">
      {picture && <img src={shownAt(picture)} alt="" className="max-h-24 max-w-44 border border-hairline" />}
      <ChooseFile label={picture ? 'Choose another picture' : 'Choose a picture'} accept=".jpg,.jpeg,.png,.webp" take={take.mutate} disabled={take.isPending}>
        {take.isPending ? 'Looking at it…' : picture ? 'Another picture' : 'Add a picture'}
      </ChooseFile>
      {picture && (
        <Button look="link" onClick={() => set(undefined)}>
          Without it
        </Button>
      )}
    </div>
  )
}
