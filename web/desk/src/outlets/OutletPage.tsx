import { useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { OutletDetails } from '../details/OutletDetails'
import { Page, Waiting } from '../ui/Page'
import { Accounts } from '../videos/Accounts'
import { OutletEnd } from './OutletEnd'
import { OutletForm } from './OutletForm'
import { Survival } from './Survival'
import { outletsChanged, useOutletKinds, useOutlets } from './useOutlets'

/** One outlet: what is said of it, and taking it away. */
export function OutletPage() {
  const { id = '' } = useParams()
  const client = useQueryClient()
  const outlets = useOutlets()
  const kinds = useOutletKinds()
  const outlet = outlets.data?.find((o) => o.id === id)
  const kind = kinds.data?.find((k) => k.code === outlet?.kind)
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
              {kind.publishesVideos && <Accounts outletId={outlet.id} />}
              <div>
                <OutletDetails id={outlet.id} />
              </div>
              <OutletEnd id={outlet.id} name={outlet.name} />
            </div>
            <div className="lg:col-span-2">
              <Survival id={outlet.id} />
            </div>
          </div>
        )}
      </Waiting>
    </Page>
  )
}
