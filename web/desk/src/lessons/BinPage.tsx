import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { clock, count, day } from '../ui/words'

type Binned = Schemas['BinnedLesson']

/** Lessons that were put into the bin: taken out again, or deleted for good. */
export function BinPage() {
  const client = useQueryClient()
  const bin = useQuery({ queryKey: ['bin'], queryFn: () => taken(api.GET('/api/bin')) })
  const [deleting, setDeleting] = useState<Binned>()
  const done = () => {
    for (const queryKey of [['bin'], ['lessons']]) client.invalidateQueries({ queryKey })
    setDeleting(undefined)
  }
  const refused = (problem: Error) => toast.error(problem.message)
  const restore = useMutation({
    mutationFn: (id: string) => taken(api.POST('/api/bin/{id}/restore', { params: { path: { id } } })),
    onError: refused,
    onSuccess: done,
  })
  const remove = useMutation({
    mutationFn: (id: string) => taken(api.DELETE('/api/bin/{id}', { params: { path: { id } } })),
    onError: refused,
    onSuccess: done,
  })
  return (
    <Page title="The bin" about="Lessons lie here for 30 days, then they are deleted for good." action={<TextLink to="/">Back to the lessons</TextLink>}>
      <Waiting query={bin}>
        {bin.data?.length === 0 && <p>Nothing is in the bin. Select lessons in the list to put them here.</p>}
        <ul>
          {bin.data?.map((l) => (
            <li key={l.id} className="flex flex-wrap items-baseline gap-x-5 border-b border-hairline py-2.5">
              <span className="min-w-0 flex-1 text-large">{l.title || <span className="text-amber">Without a title</span>}</span>
              <span className="text-quiet">{l.course}</span>
              <span className="font-mono">{clock(l.length)}</span>
              <span className="text-quiet">
                since {day(l.binnedAt)}, deleted {day(l.goneAt)}
              </span>
              <Button look="link" onClick={() => restore.mutate(l.id)}>
                Take out
              </Button>
              <Button look="link" onClick={() => setDeleting(l)}>
                Delete now
              </Button>
            </li>
          ))}
        </ul>
        <Dialog open={deleting !== undefined} onClose={() => setDeleting(undefined)} title="Delete for good">
          <p>
            “{deleting?.title || 'The lesson without a title'}” cannot be brought back then
            {deleting && deleting.learners > 0 ? `, and what is known of ${count(deleting.learners, 'learner')} who watched it goes with it` : ''}. Its
            recordings go too, where no other lesson is made of them.
          </p>
          <p className="mt-4">
            <Button disabled={remove.isPending} onClick={() => deleting && remove.mutate(deleting.id)}>
              Delete for good
            </Button>
          </p>
        </Dialog>
      </Waiting>
    </Page>
  )
}
