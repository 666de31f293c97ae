import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { usePeople } from './usePeople'

/** Whose a lesson is, and giving it to somebody else. */
export function Owner({ lessonId }: { lessonId: string }) {
  const client = useQueryClient()
  const owner = useQuery({ queryKey: ['owner', lessonId], queryFn: () => taken(api.GET('/api/lessons/{id}/owner', { params: { path: { id: lessonId } } })) })
  const people = usePeople({ trainers: true }, owner.data?.mayGive === true)
  const give = useMutation({
    mutationFn: (personId: string) => taken(api.PUT('/api/lessons/{id}/owner', { params: { path: { id: lessonId } }, body: { personId } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['owner', lessonId] }),
  })
  if (!owner.data) return null
  const { personId, name, mayGive } = owner.data
  if (!mayGive) return <p className="mt-1 text-small">It is {name}’s lesson.</p>
  return (
    <label className="mt-1 block text-small">
      <span className="text-quiet">Whose it is</span>
      <select
        className="w-full border border-quiet/60 bg-field px-1 py-0.5"
        value={give.isPending ? give.variables : (personId ?? '')}
        onChange={(e) => give.mutate(e.target.value)}
      >
        {!personId && <option value="">nobody’s yet</option>}
        {personId && !people.data?.people.some((p) => p.id === personId) && <option value={personId}>{name}</option>}
        {people.data?.people.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
    </label>
  )
}
