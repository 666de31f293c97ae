import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { toast } from 'sonner'
import { api, type Refused, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'

/** Another password; other browsers are signed out by it. */
export function Password() {
  const client = useQueryClient()
  const [differs, setDiffers] = useState(false)
  const change = useMutation({
    mutationFn: (body: { now: string; wanted: string }) => taken(api.PUT('/api/me/password', { body })),
    onError: () => undefined,
    onSuccess: () => {
      toast('Your password is changed. Other browsers are signed out.')
      client.invalidateQueries({ queryKey: ['sessions'] })
    },
  })
  const send = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = event.currentTarget
    const said = (name: string) => String(new FormData(form).get(name))
    setDiffers(said('wanted') !== said('again'))
    if (said('wanted') === said('again')) change.mutate({ now: said('now'), wanted: said('wanted') }, { onSuccess: () => form.reset() })
  }
  const refused = change.error as Refused | null
  const problem = (field: string) => (refused?.field === field ? refused.message : undefined)
  return (
    <section>
      <h2 className="border-b-2 border-ink pb-1">Password</h2>
      <form onSubmit={send} className="mt-3 flex max-w-sm flex-col gap-3">
        <Field label="Your password now" name="now" type="password" autoComplete="current-password" required problem={problem('now')} />
        <Field
          label="The new one, 10 characters or more"
          name="wanted"
          type="password"
          autoComplete="new-password"
          minLength={10}
          required
          problem={problem('wanted')}
        />
        <Field
          label="The new one again"
          name="again"
          type="password"
          autoComplete="new-password"
          required
          problem={differs ? 'The two are not the same. Type both again.' : undefined}
        />
        {refused && !refused.field && (
          <p role="alert" className="text-brick">
            {refused.message}
          </p>
        )}
        <div>
          <Button type="submit">Change the password</Button>
        </div>
      </form>
    </section>
  )
}
