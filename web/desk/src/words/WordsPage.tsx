import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { type Row, rowsOf, wordsOf } from './rows'

/** How the house writes names, acronyms and phrases: what drafts of captions go by. */
export function WordsPage() {
  const client = useQueryClient()
  const words = useQuery({ queryKey: ['words'], queryFn: () => taken(api.GET('/api/house/words')) })
  const [rows, setRows] = useState<Row[]>()
  useEffect(() => {
    if (words.data) setRows((now) => now ?? rowsOf(words.data))
  }, [words.data])
  const save = useMutation({
    mutationFn: (now: Row[]) => taken(api.PUT('/api/house/words', { body: wordsOf(now) })),
    onSuccess: (saved) => {
      client.setQueryData(['words'], saved)
      client.invalidateQueries({ queryKey: ['draft'] })
      setRows(rowsOf(saved))
      toast.success('Kept. Drafts of captions are written so from now on.')
    },
  })
  const set = (key: string, change: Partial<Row>) => setRows((now) => now?.map((r) => (r.key === key ? { ...r, ...change } : r)))
  const isChanged = Boolean(rows && words.data && JSON.stringify(wordsOf(rows)) !== JSON.stringify(wordsOf(rowsOf(words.data))))
  return (
    <Page title="Word list" about="Names, acronyms and phrases as the house writes them. Drafts of captions are written so, whatever was heard.">
      <Waiting query={words}>
        <form
          className="max-w-4xl"
          onSubmit={(event) => {
            event.preventDefault()
            if (rows) save.mutate(rows)
          }}
        >
          {rows?.length === 0 && <p className="mb-3 text-quiet">None yet. Begin with the names that drafts get wrong.</p>}
          {rows && rows.length > 0 && (
            <table className="w-full border-collapse text-left">
              <thead>
                <tr className="border-b-2 border-ink">
                  <th scope="col" className="py-1 pr-3">
                    Written
                  </th>
                  <th scope="col" className="py-1 pr-3">
                    Said <span className="font-normal text-quiet">in plain words</span>
                  </th>
                  <th scope="col" className="py-1 pr-3">
                    Often heard as <span className="font-normal text-quiet">several parted by commas</span>
                  </th>
                  <th scope="col">
                    <span className="sr-only">Remove</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.key} className="border-b border-hairline">
                    {(['written', 'said', 'heardAs'] as const).map((field) => (
                      <td key={field} className="py-1.5 pr-3">
                        <input
                          aria-label={`${{ written: 'Written', said: 'Said', heardAs: 'Often heard as' }[field]}${row.written ? `: ${row.written}` : ''}`}
                          value={row[field]}
                          maxLength={field === 'heardAs' ? 1700 : 80}
                          onChange={(e) => set(row.key, { [field]: e.target.value })}
                          className="w-full border border-quiet/60 bg-field px-2 py-1"
                        />
                      </td>
                    ))}
                    <td className="py-1.5 text-right">
                      <Button look="link" aria-label={`Remove ${row.written || 'the empty word'}`} onClick={() => setRows(rows.filter((r) => r !== row))}>
                        Remove
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {save.error && (
            <p role="alert" className="mt-3 text-brick">
              {save.error.message}
            </p>
          )}
          <div className="mt-4 flex items-center gap-6">
            <Button look="link" onClick={() => setRows([...(rows ?? []), { key: crypto.randomUUID(), written: '', said: '', heardAs: '' }])}>
              Add a word
            </Button>
            {isChanged && (
              <Button type="submit" disabled={save.isPending}>
                Save the list
              </Button>
            )}
          </div>
        </form>
      </Waiting>
    </Page>
  )
}
