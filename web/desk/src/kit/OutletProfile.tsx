import { useMutation, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { useProfiles } from '../profiles/settings'

/** The profile that is taken for an outlet where nobody chooses another; what it would refuse is not offered. */
export function OutletProfile({ outlet }: { outlet: Schemas['OutletEntry'] }) {
  const client = useQueryClient()
  const profiles = useProfiles()
  const choose = useMutation({
    mutationFn: (profileId: string) => taken(api.PUT('/api/outlets/{id}/profile', { params: { path: { id: outlet.id } }, body: { profileId } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => Promise.all(['outlets', 'profiles', 'releases'].map((key) => client.invalidateQueries({ queryKey: [key] }))),
  })
  const fitting = profiles.data?.filter((p) => !outlet.refuses.some((r) => r.profileId === p.profile.id)) ?? []
  return (
    <label className="mt-1 flex items-center gap-2 text-quiet">
      takes
      <select
        aria-label={`Profile for ${outlet.name}`}
        className="border border-hairline bg-field px-2 py-0.5 text-ink"
        value={outlet.usualProfile}
        onChange={(e) => choose.mutate(e.target.value)}
      >
        {fitting.map(({ profile }) => (
          <option key={profile.id} value={profile.id}>
            {profile.title}
          </option>
        ))}
      </select>
      {outlet.refuses.length > 0 && (
        <details className="text-small">
          <summary className="cursor-pointer">why not {outlet.refuses.length === 1 ? 'one other' : `${outlet.refuses.length} others`}</summary>
          <ul>
            {outlet.refuses.map((r) => (
              <li key={r.profileId}>{r.sentence}</li>
            ))}
          </ul>
        </details>
      )}
    </label>
  )
}
