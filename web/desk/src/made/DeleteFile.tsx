import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { size } from '../ui/words'

interface Props {
  open: boolean
  close: () => void
  lessonId: string
  file: Schemas['MadeFileView']
}

/** Asks before a file goes, and shows what goes with it. */
export function DeleteFile({ open, close, lessonId, file }: Props) {
  const client = useQueryClient()
  const used = file.goesWith.length > 0
  const remove = useMutation({
    mutationFn: () => taken(api.DELETE('/api/lessons/{id}/files/{key}', { params: { path: { id: lessonId, key: file.key }, query: { takeDown: used } } })),
    onSuccess: close,
    onSettled: () => {
      for (const key of [['deliver', lessonId], ['releases', lessonId], ['board'], ['lessons'], ['queue'], ['space']])
        client.invalidateQueries({ queryKey: key })
    },
  })
  return (
    <Dialog open={open} onClose={close} title={`Delete “${file.name}”?`}>
      {used ? (
        <>
          <p>What goes with it:</p>
          <ul className="my-2">
            {file.goesWith.map((loss) => (
              <li key={loss} className="border-b border-hairline py-1">
                {loss}
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p>No outlet has it, and nothing else goes with it.</p>
      )}
      <p className="text-quiet">{size(file.bytes)} become free, and what was encoded for it alone. The lesson and its recordings stay: it can be made again.</p>
      {remove.error && (
        <p role="alert" className="mt-2 text-brick">
          {remove.error.message}
        </p>
      )}
      <p className="mt-4 flex gap-4">
        <Button onClick={() => remove.mutate()} disabled={remove.isPending}>
          {used ? 'Take it down and delete it' : 'Delete it'}
        </Button>
        <Button look="link" onClick={close}>
          Leave it
        </Button>
      </p>
    </Dialog>
  )
}
