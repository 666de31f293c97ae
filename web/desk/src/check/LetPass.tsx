import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { day } from '../ui/words'

interface Props {
  rendition: Schemas['RenditionView']
  fact: Schemas['CheckedFact']
  passed: Schemas['LetPassView'] | undefined
}

/** A wrong fact that somebody lets pass: the reason is asked for, and kept. */
export function LetPass({ rendition, fact, passed }: Props) {
  const client = useQueryClient()
  const [asking, ask] = useState(false)
  const letPass = useMutation({
    mutationFn: (reason: string) =>
      taken(api.POST('/api/renditions/{id}/let-pass', { params: { path: { id: rendition.id } }, body: { code: fact.code, reason } })),
    // The form stays until the verdict beside it has changed.
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['deliver', rendition.lessonId] })
      ask(false)
    },
  })
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    letPass.mutate(String(new FormData(event.currentTarget).get('reason')))
  }
  if (asking)
    return (
      <form onSubmit={submit} className="mt-1 flex flex-col gap-1 font-sans">
        <Field label={`Why “${fact.fact}” may pass`} name="reason" defaultValue={passed?.reason} problem={letPass.error?.message} autoFocus />
        <span className="flex gap-4">
          <Button type="submit" disabled={letPass.isPending}>
            Let it pass
          </Button>
          <Button look="link" onClick={() => ask(false)}>
            Leave it
          </Button>
        </span>
      </form>
    )
  return (
    <span className="block font-sans text-body">
      {passed && (
        <span className="block text-quiet">
          Let pass: {passed.reason} ({passed.by}, {day(passed.at)})
        </span>
      )}
      <Button look="link" onClick={() => ask(true)}>
        {passed ? 'Change the reason' : 'Let it pass'}
      </Button>
    </span>
  )
}
