import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import { toast } from 'sonner'
import { refusal } from '../app/api'
import { ChooseFile } from '../ui/ChooseFile'
import { Waiting } from '../ui/Page'
import { type Profile, useProfiles, words } from './settings'

/** The profiles that can be chosen, and the door for one from a file. */
export function ProfileList() {
  const profiles = useProfiles()
  return (
    <>
      <div className="flex items-baseline justify-between">
        <h2>Profiles</h2>
        <BringIn />
      </div>
      <Waiting query={profiles}>
        <ul className="mb-8 border-t border-hairline">
          {profiles.data?.map(({ profile: p, shipped, outlets, playsOn }) => (
            <li key={p.id} className="border-b border-hairline py-1.5">
              <Link to={`/kit/profiles/${p.id}`} className="font-bold hover:underline">
                {p.title}
              </Link>{' '}
              <span className="text-small text-quiet">{inShort(p)}</span>
              <span className="block text-small text-quiet">
                {p.description} Plays on{' '}
                {playsOn
                  .filter((d) => d.plays)
                  .map((d) => d.devices)
                  .join(', ')}
                .{outlets.length > 0 && <b className="text-ink"> Taken for {outlets.join(', ')}.</b>}
                {!shipped && <b className="text-ink"> The house’s own.</b>}
              </span>
            </li>
          ))}
        </ul>
      </Waiting>
    </>
  )
}

/** A profile in the fewest words: MP4, H.264, at most 720. */
export function inShort(p: Profile) {
  const { rule, width, height } = p.picture?.size ?? {}
  const size = rule === 'atMostHeight' ? ` ≤ ${height}` : rule === 'exact' ? ` ${width} × ${height}` : ''
  const picture = p.picture && words.codec[p.picture.codec] + size
  return [words.container[p.container].split(',')[0], picture, p.sound && words.soundCodec[p.sound.codec]].filter(Boolean).join(' · ')
}

function BringIn() {
  const client = useQueryClient()
  const navigate = useNavigate()
  const bring = useMutation({
    mutationFn: async (file: File) => {
      const answer = await fetch('/api/profiles/document', { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: file })
      const said = await answer.json()
      if (!answer.ok) throw refusal(said, answer.status)
      return said as Profile
    },
    onError: (problem) => toast.error(problem.message, { duration: 15_000 }),
    onSuccess: async (added) => {
      await client.invalidateQueries({ queryKey: ['profiles'] })
      navigate(`/kit/profiles/${added.id}`)
    },
  })
  return (
    <ChooseFile label="Profile file" accept=".json,application/json" take={bring.mutate}>
      Bring in a profile
    </ChooseFile>
  )
}
