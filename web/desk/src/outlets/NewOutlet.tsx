import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { addedOn } from './kinds'
import { OutletForm } from './OutletForm'
import { outletsChanged, useOutletKinds } from './useOutlets'

/** An outlet that is to be added: first its kind, then what that kind asks. */
export function NewOutlet() {
  const client = useQueryClient()
  const navigate = useNavigate()
  const kinds = useOutletKinds()
  const [chosen, choose] = useState<string>()
  const kind = kinds.data?.find((k) => k.code === chosen)
  return (
    <Page title="New outlet" about="A place where lessons are released.">
      <Waiting query={kinds}>
        <div className="grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,420px)_minmax(0,1fr)]">
          <fieldset>
            <legend className="sr-only">What it is</legend>
            {kinds.data?.map((k) => (
              <label key={k.code} className="flex gap-2 border-b border-hairline py-2 first-of-type:border-t">
                <input type="radio" name="kind" className="mt-1 h-4 w-4 shrink-0 accent-copper" checked={chosen === k.code} onChange={() => choose(k.code)} />
                <span>
                  <b className="inline-block first-letter:uppercase">{k.name}</b>
                  <span className="block text-quiet">{k.about}</span>
                </span>
              </label>
            ))}
          </fieldset>
          {kind && addedOn(kind.code) ? (
            <p>
              More is asked of a {kind.name} than fits here. <TextLink to={addedOn(kind.code) as string}>Go on with the {kind.name}</TextLink>
            </p>
          ) : kind ? (
            <OutletForm
              key={kind.code}
              kind={kind}
              start={{ name: '', settings: kind.start as Record<string, unknown>, deliverBy: kind.deliveries[0]?.code ?? 'download', deliverTo: null }}
              action={`Add the ${kind.name}`}
              save={async (entered) => {
                const added = await taken(api.POST('/api/outlets/{kind}', { params: { path: { kind: kind.code } }, body: entered as never }))
                await outletsChanged(client)
                toast.success(`“${entered.name.trim()}” is an outlet now`)
                navigate(kind.publishesVideos ? `/kit/outlets/${added.id}` : '/kit')
              }}
            />
          ) : (
            <p className="text-quiet">Choose what it is.</p>
          )}
        </div>
      </Waiting>
    </Page>
  )
}
