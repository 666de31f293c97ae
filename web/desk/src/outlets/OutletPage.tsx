import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { OutletDetails } from '../details/OutletDetails'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { OutletForm } from './OutletForm'
import { outletsChanged, useOutletKinds, useOutlets } from './useOutlets'

/** One outlet: what is said of it, and taking it away. */
export function OutletPage() {
  const { id = '' } = useParams()
  const client = useQueryClient()
  const navigate = useNavigate()
  const outlets = useOutlets()
  const kinds = useOutletKinds()
  const outlet = outlets.data?.find((o) => o.id === id)
  const kind = kinds.data?.find((k) => k.code === outlet?.kind)
  const remove = useMutation({
    mutationFn: () => taken(api.DELETE('/api/outlets/{id}', { params: { path: { id } } })),
    onSuccess: async () => {
      navigate('/kit')
      await outletsChanged(client)
    },
  })
  return (
    <Page title={outlet?.name ?? 'Outlet'} about={kind ? `A ${kind.name}. ${kind.about}` : ''}>
      <Waiting query={outlets}>
        {!outlet && <p>There is no such outlet any more.</p>}
        {outlet && kind && (
          <div className="grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,560px)_minmax(0,1fr)]">
            <OutletForm
              key={outlet.id}
              kind={kind}
              start={{ name: outlet.name, settings: outlet.settings as Record<string, unknown>, deliverBy: outlet.deliverBy, deliverTo: outlet.deliverTo }}
              action="Save the outlet"
              save={async (entered) => {
                await taken(api.PUT('/api/outlets/{id}', { params: { path: { id } }, body: entered as never }))
                await outletsChanged(client)
                toast.success('Saved')
              }}
            />
            <div>
              <h2>What of a lesson is there</h2>
              <ul className="border-t border-hairline">
                {kind.carries.map((carried) => (
                  <li key={carried.what} className="border-b border-hairline py-1.5">
                    <b>{carried.what}</b> <span className="text-quiet">{carried.lost ? 'Not there.' : (carried.as ?? 'As in the lesson.')}</span>
                  </li>
                ))}
              </ul>
              <div className="mt-8">
                <OutletDetails id={outlet.id} />
              </div>
              <h2 className="mt-8">Remove it</h2>
              <p className="border-t border-hairline py-2 text-quiet">An outlet can go once no lesson stands there.</p>
              <Button look="link" onClick={() => remove.mutate()} disabled={remove.isPending}>
                Remove “{outlet.name}”
              </Button>
              {remove.error && (
                <p role="alert" className="mt-1 text-brick">
                  {remove.error.message}
                </p>
              )}
            </div>
          </div>
        )}
      </Waiting>
    </Page>
  )
}
