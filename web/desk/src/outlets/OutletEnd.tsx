import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { count } from '../ui/words'
import { outletsChanged } from './useOutlets'

/** Emptying an outlet and removing it: what that means for what is released there is said first. */
export function OutletEnd({ id, name }: { id: string; name: string }) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [sure, ask] = useState(false)
  const board = useQuery({ queryKey: ['board'], queryFn: () => taken(api.GET('/api/board')) })
  const at = board.data?.outlets.findIndex((o) => o.id === id) ?? -1
  const there = (board.data?.lessons ?? []).filter((l) => at >= 0 && l.cells[at] && l.cells[at]?.phase !== 'takenDown')
  const empty = useMutation({
    mutationFn: () =>
      taken(
        api.POST('/api/board/apply', {
          body: { action: 'takeDown', cells: there.map((l) => ({ lessonId: l.lessonId, outletId: id })), visibility: null },
        }),
      ),
    onSuccess: ({ begun, refused }) => {
      ask(false)
      if (refused.length > 0) toast.error(`${count(refused.length, 'lesson')} could not be taken down: ${refused[0].sentence}`)
      else toast.success(`${count(begun, 'lesson')} taken down`)
    },
    onError: (problem) => toast.error(problem.message),
    onSettled: () => outletsChanged(client),
  })
  const remove = useMutation({
    mutationFn: () => taken(api.DELETE('/api/outlets/{id}', { params: { path: { id } } })),
    onSuccess: async () => {
      navigate('/kit')
      await outletsChanged(client)
    },
  })
  return (
    <section className="mt-8">
      <h2>Empty or remove it</h2>
      <div className="flex flex-col items-start gap-2 border-t border-hairline py-2">
        {there.length === 0 ? (
          <>
            <p className="text-quiet">Nothing stands at “{name}”. Once it is removed, addresses that it had lead nowhere.</p>
            <Button look="link" onClick={() => remove.mutate()} disabled={remove.isPending}>
              Remove “{name}”
            </Button>
          </>
        ) : (
          <>
            <p>
              {count(there.length, 'lesson')} {there.length === 1 ? 'stands' : 'stand'} at “{name}”. Emptied, nothing is seen there any more: what was put there
              is taken away where Wexel reaches it, and pages of Wexel say that they were taken down. Their addresses are kept, and good again once they are
              released anew. It can be removed when it is empty.
            </p>
            {sure ? (
              <p className="flex gap-4">
                <Button onClick={() => empty.mutate()} disabled={empty.isPending}>
                  {empty.isPending ? 'Taking down…' : `Take ${count(there.length, 'lesson')} down`}
                </Button>
                <Button look="link" onClick={() => ask(false)}>
                  Leave them
                </Button>
              </p>
            ) : (
              <Button look="link" onClick={() => ask(true)}>
                Empty “{name}”
              </Button>
            )}
          </>
        )}
        {remove.error && (
          <p role="alert" className="text-brick">
            {remove.error.message}
          </p>
        )}
      </div>
    </section>
  )
}
