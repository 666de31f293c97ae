import { useMutation } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'

/** Has a recording looked through again: where that failed with the reason, and at any time where something of it looks wrong. */
export function LookAgain({ hash, failure }: { hash: string; failure: string | null }) {
  const again = useMutation({
    mutationFn: () => taken(api.POST('/api/recordings/{hash}/look-through', { params: { path: { hash } } })),
    onError: () => undefined,
  })
  return (
    <div className="mt-3">
      {failure && (
        <p role="alert" className="text-brick">
          {failure}
        </p>
      )}
      <Button look={failure ? 'main' : 'link'} onClick={() => again.mutate()}>
        Look through it again
      </Button>
      {again.error && (
        <p role="alert" className="mt-1 text-brick">
          {again.error.message}
        </p>
      )}
    </div>
  )
}
