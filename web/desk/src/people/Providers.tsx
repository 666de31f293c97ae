import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, Refused, type Schemas, taken } from '../app/api'
import { useMe } from '../app/useMe'
import { Button } from '../ui/Button'
import { Copyable } from '../ui/Copyable'
import { Field } from '../ui/Field'
import { Page, Waiting } from '../ui/Page'
import { count } from '../ui/words'
import { useGroups } from './usePeople'

type Settings = Schemas['ProviderSettings']
type Provider = Schemas['ProviderView']

const empty: Settings = { name: '', address: '', client: '', scopes: '', groupClaim: '', groups: [], ownsAddresses: false }

/** The identity providers by which people sign in. */
export function Providers() {
  const me = useMe()
  const client = useQueryClient()
  const mayChange = me.data?.administrator ?? false
  const providers = useQuery({ queryKey: ['providers'], queryFn: () => taken(api.GET('/api/providers')), enabled: mayChange })
  const [adding, setAdding] = useState(false)
  const changed = () => client.invalidateQueries({ queryKey: ['providers'] })
  const save = useMutation({
    mutationFn: ({ settings, secret }: Said) => taken(api.POST('/api/providers', { body: { settings, secret } })),
    onSuccess: () => setAdding(false),
    onSettled: changed,
  })
  const about = 'People sign in with the account that they have in the organisation already (OpenID Connect), beside passwords and passkeys.'
  if (!mayChange)
    return (
      <Page title="Ways to sign in" about={about}>
        <p className="border-l-2 border-amber pl-3">An administrator sets these up; you are none.</p>
      </Page>
    )
  return (
    <Page title="Ways to sign in" about={about}>
      <Waiting query={providers}>
        <div className="max-w-4xl">
          {providers.data?.length === 0 && !adding && <p className="text-quiet">None yet. People sign in with a password or a passkey.</p>}
          {providers.data?.map((p) => (
            <KnownProvider key={p.id} provider={p} changed={changed} />
          ))}
          {adding ? (
            <section className="mt-6 border-t-2 border-ink pt-3">
              <h2>A new one</h2>
              <ProviderForm settings={empty} hasSecret={false} error={save.error} save={save.mutate} />
            </section>
          ) : (
            <p className="mt-6">
              <Button look="link" onClick={() => setAdding(true)}>
                Add a provider
              </Button>
            </p>
          )}
        </div>
      </Waiting>
    </Page>
  )
}

interface Said {
  settings: Settings
  secret: string | null
}

function KnownProvider({ provider: p, changed }: { provider: Provider; changed: () => void }) {
  const at = { params: { path: { id: p.id } } }
  const save = useMutation({
    mutationFn: ({ settings, secret }: Said) => taken(api.PUT('/api/providers/{id}', { ...at, body: { settings, secret } })),
    onSuccess: () => toast.success(`${p.settings.name} is changed. Who is signed in stays so.`),
    onSettled: changed,
  })
  const remove = useMutation({
    mutationFn: () => taken(api.DELETE('/api/providers/{id}', at)),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const ask = useMutation({ mutationFn: () => taken(api.POST('/api/providers/{id}/try', at)), onError: () => undefined })
  return (
    <section className="mb-8 border-t-2 border-ink pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2>{p.settings.name}</h2>
        <span className="text-quiet">{p.people === 0 ? 'nobody has signed in by it yet' : `${count(p.people, 'person', 'people')} signed in by it`}</span>
      </div>
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,340px)]">
        <ProviderForm key={JSON.stringify(p.settings)} settings={p.settings} hasSecret={p.hasSecret} error={save.error} save={save.mutate} />
        <div className="flex flex-col gap-3 text-small">
          <p className="text-quiet">What the provider is told of Wexel:</p>
          <Copyable label="Goes back to" text={p.back} />
          <Copyable label="When signed out, to" text={p.afterSignOut} />
          <Copyable label="Says sign-outs at" text={p.signedOut} />
          <p className="flex flex-wrap gap-4 text-base">
            <Button look="link" onClick={() => ask.mutate()} disabled={ask.isPending}>
              Ask whether it answers
            </Button>
            <Button
              look="link"
              onClick={() =>
                window.confirm(`Remove ${p.settings.name}? Who signed in by it is signed out. Their accounts stay; a password comes by mail.`) &&
                remove.mutate()
              }
            >
              Remove
            </Button>
          </p>
          {(ask.data || ask.error) && (
            <p role="status" className={ask.error ? 'text-brick' : ''}>
              {ask.data?.sentence ?? ask.error?.message}
            </p>
          )}
        </div>
      </div>
    </section>
  )
}

interface FormProps {
  settings: Settings
  hasSecret: boolean
  error: Error | null
  save: (said: Said) => void
}

function ProviderForm({ settings, hasSecret, error, save }: FormProps) {
  const [said, setSaid] = useState(settings)
  const [secret, setSecret] = useState('')
  const groups = useGroups().data ?? []
  const problemOf = (field: string) => (error instanceof Refused && error.field === field ? error.message : undefined)
  const field = (name: 'name' | 'address' | 'client' | 'scopes' | 'groupClaim', label: string) => (
    <Field label={label} value={said[name]} onChange={(e) => setSaid({ ...said, [name]: e.target.value })} problem={problemOf(name)} />
  )
  const map = (i: number, to: Partial<Schemas['GroupMapping']>) => setSaid({ ...said, groups: said.groups.map((g, at) => (at === i ? { ...g, ...to } : g)) })
  return (
    <form
      className="mt-2 flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        save({ settings: said, secret: secret === '' ? null : secret })
      }}
    >
      {field('name', 'Name, as it stands on the button')}
      {field('address', 'Address of the provider (its issuer)')}
      <div className="grid gap-3 sm:grid-cols-2">
        {field('client', 'What Wexel is called there (client ID)')}
        <Field
          label={hasSecret ? 'Another secret (the one kept stays)' : 'Secret'}
          type="password"
          autoComplete="off"
          value={secret}
          onChange={(e) => setSecret(e.target.value)}
        />
        {field('scopes', 'More that is asked for (scopes)')}
        {field('groupClaim', 'Claim that says the groups')}
      </div>
      {said.groupClaim.trim() !== '' && (
        <fieldset>
          <legend className="text-quiet">Groups that follow what it says, at each sign-in</legend>
          {said.groups.map((g, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name of their own
            <p key={i} className="mt-2 flex flex-wrap items-center gap-2">
              <input
                aria-label="What the provider says"
                className="w-44 border border-quiet/60 bg-field px-2 py-1"
                value={g.value}
                onChange={(e) => map(i, { value: e.target.value })}
              />
              <span>is</span>
              <select
                aria-label="Group"
                className="border border-quiet/60 bg-field px-2 py-1"
                value={g.group}
                onChange={(e) => map(i, { group: e.target.value })}
              >
                {groups.map((known) => (
                  <option key={known.id} value={known.id}>
                    {known.name}
                  </option>
                ))}
              </select>
              <Button look="link" onClick={() => setSaid({ ...said, groups: said.groups.filter((_, at) => at !== i) })}>
                Take out
              </Button>
            </p>
          ))}
          {problemOf('groups') && <p className="text-brick">{problemOf('groups')}</p>}
          <p className="mt-2">
            {groups.length > 0 ? (
              <Button look="link" onClick={() => setSaid({ ...said, groups: [...said.groups, { value: '', group: groups[0]?.id ?? '' }] })}>
                Add a line
              </Button>
            ) : (
              <span className="text-quiet">There are no groups yet; make one under People.</span>
            )}
          </p>
        </fieldset>
      )}
      <label className="flex items-baseline gap-2">
        <input type="checkbox" className="accent-copper" checked={said.ownsAddresses} onChange={(e) => setSaid({ ...said, ownsAddresses: e.target.checked })} />
        <span>
          The organisation gives out its mail addresses
          <span className="block text-small text-quiet">
            Then an address is believed though the provider does not say that it is verified. Where people choose their own, leave this off: they could write
            somebody else’s.
          </span>
        </span>
      </label>
      {error && !(error instanceof Refused && error.field) && <p className="text-brick">{error.message}</p>}
      <p>
        <Button type="submit">Save</Button>
      </p>
    </form>
  )
}
