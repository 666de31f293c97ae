import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Waiting } from '../ui/Page'
import { day } from '../ui/words'

interface Props {
  lessonId: string
  revision: number
  restore: (number: number) => void
}

/** All saved revisions: who changed what and when, each to go back to. */
export function History({ lessonId, revision, restore }: Props) {
  const [open, setOpen] = useState(false)
  const list = useQuery({
    queryKey: ['revisions', lessonId, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/revisions', { params: { path: { id: lessonId } } })),
    enabled: open,
  })
  return (
    <>
      <Button look="link" onClick={() => setOpen(true)}>
        History
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title="History">
        <Waiting query={list}>
          <ul className="max-h-[60vh] overflow-y-auto">
            {list.data?.map((r) => (
              <li key={r.number} className="grid grid-cols-[32px_1fr_auto] gap-x-3 border-t border-hairline py-1.5">
                <span className="text-right font-mono text-small text-quiet">{r.number}</span>
                <span className="min-w-0">
                  {r.changes}
                  {r.restoredFrom != null && <span className="text-quiet"> · back to {r.restoredFrom}</span>}
                  <span className="block text-small text-quiet">
                    {r.savedBy}, {day(r.savedAt)}
                  </span>
                </span>
                {r.number !== revision && (
                  <Button
                    look="link"
                    aria-label={`Go back to revision ${r.number}`}
                    onClick={() => {
                      restore(r.number)
                      setOpen(false)
                    }}
                  >
                    Go back to it
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </Waiting>
      </Dialog>
    </>
  )
}
