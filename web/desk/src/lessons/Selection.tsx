import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { RenderSelection } from '../queue/RenderSelection'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { count } from '../ui/words'

interface Props {
  lessons: string[]
  courses: readonly Schemas['CourseView'][]
  clear: () => void
}

/** What is selected among the lessons, and what can be done with all of it. */
export function Selection({ lessons, courses, clear }: Props) {
  const client = useQueryClient()
  const [moving, setMoving] = useState(false)
  const refused = (problem: Error) => toast.error(problem.message)
  const fetchAgain = () => {
    client.invalidateQueries({ queryKey: ['lessons'] })
    client.invalidateQueries({ queryKey: ['bin'] })
  }
  const done = () => {
    fetchAgain()
    setMoving(false)
    clear()
  }
  const move = useMutation({
    mutationFn: (courseId: string) => taken(api.POST('/api/lessons/move', { body: { lessons, courseId } })),
    onError: refused,
    onSuccess: done,
  })
  const copy = useMutation({
    mutationFn: async () => {
      for (const id of lessons) await taken(api.POST('/api/lessons/{id}/copy', { params: { path: { id } } }))
    },
    onError: refused,
    onSuccess: done,
  })
  const restore = useMutation({
    mutationFn: async (ids: string[]) => {
      for (const id of ids) await taken(api.POST('/api/bin/{id}/restore', { params: { path: { id } } }))
    },
    onError: refused,
    onSuccess: fetchAgain,
  })
  const bin = useMutation({
    mutationFn: () => taken(api.POST('/api/bin', { body: { lessons } })),
    onError: refused,
    onSuccess: () => {
      const undone = lessons
      toast(`${count(lessons.length, 'lesson')} in the bin, for 30 days.`, { action: { label: 'Take out again', onClick: () => restore.mutate(undone) } })
      done()
    },
  })
  return (
    <section aria-label="What is selected" className="sticky bottom-0 flex items-center gap-5 border-t border-ink bg-paper py-3">
      <RenderSelection lessons={lessons} clear={clear} />
      {courses.length > 1 && (
        <Button look="link" onClick={() => setMoving(true)}>
          Move to another course
        </Button>
      )}
      <Button look="link" disabled={copy.isPending} onClick={() => copy.mutate()}>
        Copy
      </Button>
      <Button look="link" disabled={bin.isPending} onClick={() => bin.mutate()}>
        Put into the bin
      </Button>
      <Button look="link" onClick={clear}>
        Select nothing
      </Button>
      <Dialog open={moving} onClose={() => setMoving(false)} title={`Move ${count(lessons.length, 'lesson')}`}>
        <p className="mb-2 text-quiet">They stand behind the lessons that are there. What is released stays where it is, at its address.</p>
        <ul>
          {courses.map((c) => (
            <li key={c.id} className="border-b border-hairline py-2">
              <Button look="link" disabled={move.isPending} onClick={() => move.mutate(c.id)}>
                {c.title}
              </Button>{' '}
              <span className="text-quiet">{count(c.lessons.length, 'lesson')}</span>
            </li>
          ))}
        </ul>
      </Dialog>
    </section>
  )
}
