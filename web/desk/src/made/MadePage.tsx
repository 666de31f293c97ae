import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { count, size } from '../ui/words'
import { MadeRow } from './MadeRow'

/** Every file that was made of a lesson: what it is for, which one is handed on, and what may go. */
export function MadePage() {
  const { id = '' } = useParams()
  const client = useQueryClient()
  const made = useQuery({
    queryKey: ['deliver', id, 'made'],
    queryFn: () => taken(api.GET('/api/lessons/{id}/files', { params: { path: { id } } })),
  })
  const master = useMutation({
    mutationFn: () => taken(api.POST('/api/lessons/{id}/master', { params: { path: { id } } })),
    onSuccess: () => toast.success('The master copy stands in the queue. It is kept when it is done.'),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['queue'] }),
  })
  const files = made.data?.files ?? []
  return (
    <Waiting query={made}>
      {made.data && (
        <Page
          title={`${made.data.lessonTitle}: everything made`}
          about={
            <>
              <TextLink to={`/lessons/${id}/deliver`}>Deliver</TextLink> · {count(files.length, 'file')}, {size(files.reduce((sum, f) => sum + f.bytes, 0))}
            </>
          }
          action={
            files.length > 0 && (
              <TextLink href={`/api/lessons/${id}/files.zip`} download>
                Download all as one ZIP
              </TextLink>
            )
          }
        >
          {!made.data.hasMaster && (
            <p className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-1">
              <span className="text-amber">There is no master copy of the lesson as it stands. Keep one before it goes anywhere.</span>
              <Button onClick={() => master.mutate()} disabled={master.isPending}>
                Keep a master copy
              </Button>
            </p>
          )}
          {files.length === 0 ? (
            <p>
              Nothing has been made of this lesson yet. <TextLink to={`/lessons/${id}/deliver`}>Render it</TextLink>, and its files stand here.
            </p>
          ) : (
            <table className="w-full">
              <thead className="text-left text-quiet">
                <tr className="border-b border-hairline">
                  <th className="py-1 font-normal">File</th>
                  <th className="font-normal">Made</th>
                  <th className="text-right font-normal">Size</th>
                  <th className="sr-only">What can be done</th>
                </tr>
              </thead>
              <tbody>
                {files.map((file) => (
                  <MadeRow key={file.key} lessonId={id} file={file} />
                ))}
              </tbody>
            </table>
          )}
          <p className="mt-4">
            <TextLink to="/kit/space">What the whole library takes, and what could be freed</TextLink>
          </p>
        </Page>
      )}
    </Waiting>
  )
}
