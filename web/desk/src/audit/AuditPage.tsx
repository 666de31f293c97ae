import { useInfiniteQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { browserName } from '../account/browserName'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { day } from '../ui/words'

type Entry = Schemas['AuditView']

/** What was done: who, when, what, from where; the last of it first. */
export function AuditPage() {
  const [words, setWords] = useState('')
  const asked = useDeferredValue(words)
  const list = useInfiniteQuery({
    queryKey: ['audit', asked],
    queryFn: ({ pageParam }) => taken(api.GET('/api/audit', { params: { query: { before: pageParam, words: asked } } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last: Entry[]) => (last.length === 100 ? last[last.length - 1].number : undefined),
  })
  const entries = list.data?.pages.flat() ?? []
  return (
    <Page title="What was done" about="Who changed what, when, and from where; the last of it first.">
      <input
        type="search"
        aria-label="Find by who did it or what it was done to"
        placeholder="A person, a lesson, an outlet"
        className="mb-3 w-64 border border-quiet/60 bg-field px-2 py-1"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <Waiting query={list}>
        {entries.length === 0 && <p>{words ? 'Nothing was found.' : 'Nothing was done yet.'}</p>}
        {entries.length > 0 && (
          <table className="w-full">
            <thead>
              <tr className="border-b-2 border-ink text-left">
                <th className="w-36 py-1.5">When</th>
                <th>Who and what</th>
                <th className="w-56">From where</th>
              </tr>
            </thead>
            <tbody>
              {entries.map((e) => (
                <tr key={e.number} className="border-b border-hairline align-top">
                  <td className="py-1.5 font-mono text-small">{day(e.at)}</td>
                  <td className="py-1.5">
                    <b>{e.who || 'Somebody'}</b> {e.what} <Subject entry={e} />
                  </td>
                  <td className="py-1.5 text-small text-quiet" title={e.with}>
                    {e.from}, {browserName(e.with)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {list.hasNextPage && (
          <Button look="link" className="mt-3" onClick={() => list.fetchNextPage()} disabled={list.isFetchingNextPage}>
            Show what was done before
          </Button>
        )}
      </Waiting>
    </Page>
  )
}

function Subject({ entry }: { entry: Entry }) {
  if (!entry.subject) return null
  return entry.lessonId ? <TextLink to={`/lessons/${entry.lessonId}`}>{entry.subject}</TextLink> : <>“{entry.subject}”</>
}
