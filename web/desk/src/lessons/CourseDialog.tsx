import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Field } from '../ui/Field'

interface Props {
  /** The course; undefined for a new one. */
  course?: Schemas['CourseView']
  onClose: () => void
}

/** What a course is called and what it is about; one without lessons can be deleted here. */
export function CourseDialog({ course, onClose }: Props) {
  const client = useQueryClient()
  const [title, setTitle] = useState(course?.title ?? '')
  const [description, setDescription] = useState(course?.description ?? '')
  const done = () => {
    client.invalidateQueries({ queryKey: ['lessons'] })
    onClose()
  }
  const save = useMutation({
    mutationFn: (): Promise<unknown> =>
      course
        ? taken(api.PUT('/api/courses/{id}', { params: { path: { id: course.id } }, body: { title, description } }))
        : taken(api.POST('/api/courses', { body: { title, description } })),
    onSuccess: done,
  })
  const remove = useMutation({
    mutationFn: () => taken(api.DELETE('/api/courses/{id}', { params: { path: { id: course?.id ?? '' } } })),
    onError: (refused) => toast.error(refused.message),
    onSuccess: done,
  })
  return (
    <Dialog open onClose={onClose} title={course ? `The course “${course.title}”` : 'A new course'}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          save.mutate()
        }}
      >
        <Field label="Title" value={title} maxLength={300} onChange={(e) => setTitle(e.target.value)} problem={save.error?.message} />
        <label className="flex flex-col gap-1">
          <span className="text-quiet">What it is about</span>
          <textarea rows={4} value={description} onChange={(e) => setDescription(e.target.value)} className="border border-quiet/60 bg-field px-2 py-1.5" />
        </label>
        <p className="flex items-center gap-5">
          <Button type="submit">{course ? 'Save' : 'Make the course'}</Button>
          {course && course.lessons.length === 0 && (
            <Button look="link" onClick={() => remove.mutate()}>
              Delete the course
            </Button>
          )}
          {course && course.lessons.length > 0 && <span className="text-small text-quiet">It can be deleted once its lessons are moved or in the bin.</span>}
        </p>
      </form>
    </Dialog>
  )
}
