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
  const whole = useQuery({ queryKey: ['board', 'courses'], queryFn: () => taken(api.GET('/api/board/courses')) })
  const courses = (whole.data ?? []).flatMap((c) => c.outlets.filter((o) => o.id === id).flatMap((o) => o.release?.id ?? []))
  const all = [there.length > 0 && count(there.length, 'lesson'), courses.length > 0 && count(courses.length, 'whole course')].filter(Boolean).join(' and ')
  const one = there.length + courses.length === 1
  const empty = useMutation({
    mutationFn: async () => {
      if (there.length > 0)
        await taken(
          api.POST('/api/board/apply', {
            body: { action: 'takeDown', cells: there.map((l) => ({ lessonId: l.lessonId, outletId: id })), visibility: null },
          }),
        )
      for (const course of courses) await taken(api.DELETE('/api/course-releases/{id}', { params: { path: { id: course } } }))
    },
    onSuccess: () => {
      ask(false)
      toast.success(`${all} ${one ? 'is' : 'are'} being taken down`)
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
        {all === '' ? (
          <>
            <p className="text-quiet">Nothing stands at “{name}”. Once it is removed, addresses that it had lead nowhere.</p>
            <Button look="link" onClick={() => remove.mutate()} disabled={remove.isPending}>
              Remove “{name}”
            </Button>
          </>
        ) : (
          <>
            <p>
              {all} {one ? 'stands' : 'stand'} at “{name}”. Emptied, nothing is seen there any more: what was put there is taken away where Wexel reaches it,
              and pages of Wexel say that they were taken down. Their addresses are kept, and good again once they are released anew. It can be removed when it
              is empty.
            </p>
            {sure ? (
              <p className="flex gap-4">
                <Button onClick={() => empty.mutate()} disabled={empty.isPending}>
                  {empty.isPending ? 'Taking down…' : `Take ${all} down`}
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
