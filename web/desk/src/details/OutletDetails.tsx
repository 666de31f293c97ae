import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { Waiting } from '../ui/Page'
import { SavedDetails } from './SavedDetails'

/** What is said about everything at an outlet, of the details that it has. */
export function OutletDetails({ id }: { id: string }) {
  const path = { id }
  const details = useQuery({ queryKey: ['outlet-details', id], queryFn: () => taken(api.GET('/api/outlets/{id}/details', { params: { path } })) })
  const has = details.data?.rules.map((r) => r.field) ?? []
  return (
    <section>
      <h2>What is said of everything there</h2>
      <p className="border-t border-hairline pt-2 pb-2 text-quiet">It holds where a lesson says nothing else.</p>
      <Waiting query={details}>
        {details.data && (
          <SavedDetails
            codes={(field) => !field.ofOneLesson && has.includes(field.code)}
            own={details.data.own}
            inherited={details.data.house}
            from={() => 'the house'}
            queryKey={['outlet-details', id]}
            put={(set) => taken(api.PUT('/api/outlets/{id}/details', { params: { path }, body: set }))}
          />
        )}
      </Waiting>
    </section>
  )
}
