import { useMutation } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'

/** Why a recording could not be looked through, and the way to have it tried again. */
export function LookAgain({ hash, failure }: { hash: string; failure: string }) {
  const again = useMutation({
    mutationFn: () => taken(api.POST('/api/recordings/{hash}/look-through', { params: { path: { hash } } })),
    onError: () => undefined,
  })
  return (
    <div className="mt-3">
      <p role="alert" className="text-brick">
        {failure}
      </p>
      <Button onClick={() => again.mutate()}>Look through it again</Button>
      {again.error && (
        <p role="alert" className="mt-1 text-brick">
          {again.error.message}
        </p>
      )}
    </div>
  )
}
