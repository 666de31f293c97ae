import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Columns } from '../ui/Columns'
import { Waiting } from '../ui/Page'
import { day } from '../ui/words'
import { browserName } from './browserName'

/** The browsers in which one is signed in; any but this one can be signed out from here. */
export function Sessions() {
  const client = useQueryClient()
  const sessions = useQuery({ queryKey: ['sessions'], queryFn: () => taken(api.GET('/api/me/sessions')) })
  const end = useMutation({
    mutationFn: (id: string) => taken(api.DELETE('/api/me/sessions/{id}', { params: { path: { id } } })),
    onError: (refused) => toast.error(refused.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['sessions'] }),
  })
  return (
    <section>
      <h2 className="border-b-2 border-ink pb-1">Signed in</h2>
      <Waiting query={sessions}>
        <table className="w-full table-fixed">
          <Columns widths={['', 'w-1/5', 'w-1/5', 'w-1/5']} />
          <thead className="sr-only">
            <tr>
              <th>Browser</th>
              <th>From</th>
              <th>Last there</th>
              <th>End</th>
            </tr>
          </thead>
          <tbody>
            {sessions.data?.map((s) => (
              <tr key={s.id} className="border-b border-hairline">
                <td className="py-2">
                  {browserName(s.browser)}
                  <span className="text-quiet"> · since {day(s.since)}</span>
                </td>
                <td className="font-mono">{s.address}</td>
                <td className="text-quiet">{s.here ? 'now' : day(s.seenAt)}</td>
                <td className="text-right">
                  {s.here ? (
                    <span className="text-quiet">this browser</span>
                  ) : (
                    <Button look="link" onClick={() => end.mutate(s.id)}>
                      Sign it out
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Waiting>
    </section>
  )
}
