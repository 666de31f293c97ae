import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { Waiting } from '../ui/Page'
import { SavedDetails } from './SavedDetails'

/** What is said about everything that the house makes. */
export function HouseDetails() {
  const details = useQuery({ queryKey: ['house-details'], queryFn: () => taken(api.GET('/api/house/details')) })
  return (
    <section>
      <h2>What the house says</h2>
      <p className="border-t border-hairline pt-2 pb-2 text-quiet">It holds for every lesson, where an outlet or the lesson itself says nothing else.</p>
      <Waiting query={details}>
        {details.data && (
          <SavedDetails
            codes={(field) => !field.ofOneLesson}
            own={details.data}
            queryKey={['house-details']}
            put={(set) => taken(api.PUT('/api/house/details', { body: set }))}
          />
        )}
      </Waiting>
    </section>
  )
}
