import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'

/** The channels and courses of which mails tell, and how often. */
export function Follows() {
  const client = useQueryClient()
  // What was chosen shows at once, before anybody has kept it.
  const [chosen, setChosen] = useState<boolean>()
  const follows = useQuery({ queryKey: ['follows'], queryFn: () => taken(api.GET('/api/me/follows')) })
  const settled = {
    onError: (problem: Error) => {
      toast.error(problem.message)
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['follows'] }),
  }
  const end = useMutation({
    mutationFn: (what: string) => taken(api.DELETE('/api/me/follows/{what}', { params: { path: { what } } })),
    ...settled,
  })
  const choose = useMutation({
    mutationFn: (daily: boolean) => taken(api.PUT('/api/me/follows/mails', { body: { daily } })),
    onError: settled.onError,
    onSettled: () => settled.onSettled().then(() => setChosen(undefined)),
  })
  return (
    <section>
      <h2 className="border-b-2 border-ink pb-1">What you follow</h2>
      {follows.data?.all.length === 0 && <p className="mt-3 text-quiet">Nothing. On a channel’s page you can follow it, or one of its courses.</p>}
      <ul>
        {follows.data?.all.map((f) => (
          <li key={f.id} className="flex items-baseline justify-between gap-3 border-b border-hairline py-2">
            <span>
              {f.name} <span className="text-quiet">· {f.isCourse ? 'course' : 'channel'}</span>
            </span>
            <Button look="link" aria-label={`Follow ${f.name} no more`} onClick={() => end.mutate(f.id)}>
              Follow no more
            </Button>
          </li>
        ))}
      </ul>
      <fieldset className="mt-3">
        <legend className="text-quiet">When something new is released there, a mail comes</legend>
        {[false, true].map((daily) => (
          <label key={String(daily)} className="mr-6 inline-flex items-baseline gap-2">
            <input
              type="radio"
              name="mails"
              className="accent-copper"
              checked={(chosen ?? follows.data?.daily) === daily}
              onChange={() => {
                setChosen(daily)
                choose.mutate(daily)
              }}
            />
            {daily ? 'once a day, in the morning' : 'at once, one for each lesson'}
          </label>
        ))}
      </fieldset>
    </section>
  )
}
