import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { useProfiles } from '../profiles/settings'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Waiting } from '../ui/Page'
import { count } from '../ui/words'

/** The one step that renders all lessons that are selected, with several profiles. */
export function RenderSelection({ lessons, clear }: { lessons: string[]; clear: () => void }) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [open, setOpen] = useState(false)
  const [chosen, choose] = useState(['web'])
  const profiles = useProfiles()
  const render = useMutation({
    mutationFn: () => taken(api.POST('/api/renditions', { body: { lessons, profiles: chosen } })),
    onError: (problem) => toast.error(problem.message),
    onSuccess: (asked) => {
      for (const r of asked.refused) toast.error(`${r.lessonTitle || 'A lesson without a title'}, ${r.profileTitle}: ${r.problem.sentence}`)
      client.invalidateQueries({ queryKey: ['queue'] })
      toast(`${count(asked.renditions.length, 'file')} in the queue; one mail comes when all are done.`, {
        action: { label: 'Look at the queue', onClick: () => navigate('/queue') },
      })
      setOpen(false)
      clear()
    },
  })
  const files = lessons.length * chosen.length
  return (
    <>
      <Button onClick={() => setOpen(true)}>Render {count(lessons.length, 'lesson')}</Button>
      <Dialog open={open} onClose={() => setOpen(false)} title={`Render ${count(lessons.length, 'lesson')}`}>
        <Waiting query={profiles}>
          <fieldset>
            <legend className="text-quiet">With these profiles</legend>
            {profiles.data?.map(({ profile }) => (
              <label key={profile.id} className="grid cursor-pointer grid-cols-[20px_1fr] border-b border-hairline py-1.5">
                <input
                  type="checkbox"
                  className="mt-1 h-4 w-4 accent-copper"
                  checked={chosen.includes(profile.id)}
                  onChange={(e) => choose((now) => (e.target.checked ? [...now, profile.id] : now.filter((id) => id !== profile.id)))}
                />
                <span>
                  <b>{profile.title}</b> <span className="block text-small text-quiet">{profile.description}</span>
                </span>
              </label>
            ))}
          </fieldset>
          <p className="mt-4 flex items-center gap-4">
            <Button disabled={files === 0 || render.isPending} onClick={() => render.mutate()}>
              Render {count(files, 'file')}
            </Button>
            {files === 0 && (
              <span role="status" className="text-amber">
                Choose at least one profile.
              </span>
            )}
          </p>
        </Waiting>
      </Dialog>
    </>
  )
}
