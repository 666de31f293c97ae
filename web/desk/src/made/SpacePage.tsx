import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { count, size } from '../ui/words'

/** What the library takes on the disk, and what of it nothing needs. */
export function SpacePage() {
  const space = useQuery({ queryKey: ['space'], queryFn: () => taken(api.GET('/api/space')) })
  const kinds = space.data?.kinds ?? []
  const sum = (of: (kind: Schemas['SpaceKind']) => number) => kinds.reduce((total, kind) => total + of(kind), 0)
  return (
    <Page
      title="Space"
      about={
        <>
          <TextLink to="/kit">Kit</TextLink> · what is brought in and made, on the server’s disk
        </>
      }
    >
      <Waiting query={space}>
        {space.data && (
          <>
            <p>
              The library takes <b>{size(sum((k) => k.bytes))}</b>; {size(space.data.freeBytes)} are free on the disk.{' '}
              {sum((k) => k.freeableBytes) > 0
                ? `${size(sum((k) => k.freeableBytes))} of it could be freed.`
                : 'Nothing of it can be freed: all of it is needed.'}
            </p>
            <table className="mt-4 w-full max-w-4xl">
              <thead className="text-left text-quiet">
                <tr className="border-b border-hairline">
                  <th className="py-1 font-normal">What</th>
                  <th className="text-right font-normal">Files</th>
                  <th className="pl-6 text-right font-normal">Size</th>
                  <th className="pl-8 font-normal">What could be freed</th>
                </tr>
              </thead>
              <tbody>
                {kinds.map((kind) => (
                  <Kind key={kind.code} kind={kind} />
                ))}
              </tbody>
            </table>
          </>
        )}
      </Waiting>
    </Page>
  )
}

function Kind({ kind }: { kind: Schemas['SpaceKind'] }) {
  const client = useQueryClient()
  const free = useMutation({
    mutationFn: () => taken(api.POST('/api/space/{code}/free', { params: { path: { code: kind.code } } })),
    onSuccess: (freed) => toast.success(`${size(freed.bytes)} are free again.`),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['space'] }),
  })
  return (
    <tr className="border-b border-hairline align-top" data-testid={`space-${kind.code}`}>
      <td className="py-2">{kind.what}</td>
      <td className="py-2 text-right font-mono text-small">{kind.files}</td>
      <td className="py-2 pl-6 text-right font-mono text-small whitespace-nowrap">{size(kind.bytes)}</td>
      <td className="py-2 pl-8">
        {kind.consequence == null ? (
          <span className="text-quiet">Nothing: it is kept as long as its lessons.</span>
        ) : kind.freeableFiles === 0 ? (
          <span className="text-quiet">Nothing at the moment.</span>
        ) : (
          <>
            <span className="block">
              {count(kind.freeableFiles, 'file')}, {size(kind.freeableBytes)}. {kind.consequence}
            </span>
            <Button look="link" onClick={() => free.mutate()} disabled={free.isPending}>
              {`Free ${size(kind.freeableBytes)}`}
            </Button>
          </>
        )}
      </td>
    </tr>
  )
}
