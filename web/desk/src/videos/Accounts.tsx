import { useMutation, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { Waiting } from '../ui/Page'
import { count, day } from '../ui/words'
import { CameBack } from './CameBack'
import { connect, useVideoAccounts } from './useVideoAccounts'

/** The accounts for which Wexel may act at a video service. */
export function Accounts({ outletId }: { outletId: string }) {
  const client = useQueryClient()
  const accounts = useVideoAccounts(outletId)
  const begin = useMutation({ mutationFn: () => connect(outletId), onError: (problem) => toast.error(problem.message) })
  const remove = useMutation({
    mutationFn: (id: string) => taken(api.DELETE('/api/video-accounts/{id}', { params: { path: { id } } })),
    onSettled: () => client.invalidateQueries({ queryKey: ['video-accounts'] }),
  })
  const service = accounts.data?.service ?? 'the service'
  return (
    <section className="mb-8" aria-label="Accounts">
      <h2>Accounts</h2>
      <p className="text-quiet">
        Connected once, at {service} itself: Wexel never sees a password, and keeps what it was given so that nobody can read it. Which account a lesson goes to
        is chosen at each release.
      </p>
      <CameBack />
      <Waiting query={accounts}>
        <ul className="mt-2 border-t border-hairline">
          {accounts.data?.accounts.map((account) => (
            <li key={account.id} className="border-b border-hairline py-2">
              <p className="flex flex-wrap items-baseline gap-x-4">
                <b>{account.name}</b>
                <Mark kind={account.withdrawn ? 'failed' : 'live'}>{account.withdrawn ? 'withdrawn' : `connected ${day(account.connectedAt)}`}</Mark>
                {account.withdrawn && (
                  <Button look="link" onClick={() => begin.mutate()}>
                    Connect it again
                  </Button>
                )}
                <Button look="link" className="ml-auto" aria-label={`Remove ${account.name}`} onClick={() => remove.mutate(account.id)}>
                  Remove
                </Button>
              </p>
              <p className="text-small text-quiet">
                {account.withdrawn && `Somebody withdrew at ${service} what Wexel may do. Nothing there can be changed until it is connected again. `}
                {account.channels.map((c) => c.name).join(', ')}
                {account.mostMinutes != null && ` · at most ${count(account.mostMinutes, 'minute')} a video`}
              </p>
            </li>
          ))}
        </ul>
        {accounts.data?.accounts.length === 0 && <p className="py-2">None yet. Lessons can go to {service} once there is one.</p>}
        {remove.error && (
          <p role="alert" className="mt-2 text-brick">
            {remove.error.message}
          </p>
        )}
        <p className="mt-3">
          <Button onClick={() => begin.mutate()} disabled={begin.isPending}>
            Connect an account
          </Button>
        </p>
      </Waiting>
    </section>
  )
}
