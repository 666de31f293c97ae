import { useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useDeferredValue, useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { ChooseRecording } from '../bringin/BringIn'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { clock, count } from '../ui/words'
import { CourseLessons } from './CourseLessons'
import { FilterLine } from './FilterLine'
import { everything, filtered, isEverything } from './filter'
import { UnderWay } from './UnderWay'
import { useLessons } from './useLessons'

// What is needed now and then is loaded then.
const Selection = lazy(() => import('./Selection').then((part) => ({ default: part.Selection })))
const CourseDialog = lazy(() => import('./CourseDialog').then((part) => ({ default: part.CourseDialog })))
const Found = lazy(() => import('./Found').then((part) => ({ default: part.Found })))

export function Lessons() {
  const lessons = useLessons()
  const [selected, select] = useState<string[]>([])
  const [filter, setFilter] = useState(everything)
  const [words, setWords] = useState('')
  const looked = useDeferredValue(words.trim())
  const [course, setCourse] = useState<Schemas['CourseView'] | 'new'>()
  const courses = lessons.data ?? []
  const shown = filtered(courses, filter)
  const chosen = shown.flatMap((c) => c.lessons.map((l) => l.id)).filter((id) => selected.includes(id))
  return (
    <Page
      title="Lessons"
      about="Drop a recording anywhere on this page to bring it in."
      action={
        <div className="flex items-center gap-5">
          <Button look="link" onClick={() => setCourse('new')}>
            New course
          </Button>
          <ChooseRecording />
        </div>
      }
    >
      <Waiting query={lessons}>
        <UnderWay courses={courses} />
        {courses.some((c) => c.lessons.length > 0) ? (
          <FilterLine courses={courses} filter={filter} change={setFilter} words={words} search={setWords} />
        ) : (
          <p>There is no lesson yet. A lesson begins with a recording of your screen.</p>
        )}
        {looked ? (
          <Suspense fallback={<p className="text-quiet">Fetching…</p>}>
            <Found words={looked} />
          </Suspense>
        ) : (
          <>
            {shown.length === 0 && !isEverything(filter) && <p>No lesson is like that. Show all, or choose otherwise.</p>}
            {shown.map((c) => (
              <section key={c.id} className="mb-8">
                <CourseHeading course={c} courses={courses} whole={isEverything(filter)} open={() => setCourse(courses.find((all) => all.id === c.id))} />
                <CourseLessons
                  course={c}
                  inOrder={isEverything(filter)}
                  selected={selected}
                  select={(id, on) => select((now) => (on ? [...now, id] : now.filter((other) => other !== id)))}
                />
              </section>
            ))}
          </>
        )}
        <p className="mt-6">
          <TextLink to="/bin">The bin</TextLink> <span className="text-quiet">keeps for 30 days what was thrown away.</span>
        </p>
        <Suspense>
          {chosen.length > 0 && <Selection lessons={chosen} courses={courses} clear={() => select([])} />}
          {course && <CourseDialog course={course === 'new' ? undefined : course} onClose={() => setCourse(undefined)} />}
        </Suspense>
      </Waiting>
    </Page>
  )
}

interface Props {
  course: Schemas['CourseView']
  courses: readonly Schemas['CourseView'][]
  /** Whether all of its lessons are shown. */
  whole: boolean
  open: () => void
}

/** A course's title and what can be done with it. */
function CourseHeading({ course, courses, whole, open }: Props) {
  const client = useQueryClient()
  const place = courses.findIndex((c) => c.id === course.id)
  const move = (by: number) => {
    const order = courses.map((c) => c.id)
    order.splice(place + by, 0, ...order.splice(place, 1))
    taken(api.PUT('/api/courses/order', { body: { courses: order } }))
      .catch((refused: Error) => toast.error(refused.message))
      .finally(() => client.invalidateQueries({ queryKey: ['lessons'] }))
  }
  return (
    <div className="border-b-2 border-ink pb-2">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2>
          {course.title}{' '}
          <span className="font-normal text-quiet">
            · {count(course.lessons.length, 'lesson')} · {clock(course.lessons.reduce((sum, l) => sum + l.length, 0))}
          </span>
        </h2>
        <Button look="link" className="text-small" aria-label={`Name and describe ${course.title}`} onClick={open}>
          Name and describe
        </Button>
        {whole && place > 0 && (
          <Button look="link" className="text-small" aria-label={`Move ${course.title} up`} onClick={() => move(-1)}>
            Up
          </Button>
        )}
        {whole && place < courses.length - 1 && (
          <Button look="link" className="text-small" aria-label={`Move ${course.title} down`} onClick={() => move(1)}>
            Down
          </Button>
        )}
      </div>
      {course.description && <p className="mt-1 max-w-[80ch] text-quiet">{course.description}</p>}
      {course.lessons.length === 0 && <p className="mt-1 text-quiet">No lessons yet. Select some in another course and move them here.</p>}
    </div>
  )
}
