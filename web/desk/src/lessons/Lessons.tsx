import { lazy, Suspense, useState } from 'react'
import { ChooseRecording } from '../bringin/BringIn'
import { Page, Waiting } from '../ui/Page'
import { clock, count } from '../ui/words'
import { CourseLessons } from './CourseLessons'
import { UnderWay } from './UnderWay'
import { useLessons } from './useLessons'

// What renders a selection is loaded with the first that is selected.
const RenderSelection = lazy(() => import('../queue/RenderSelection').then((part) => ({ default: part.RenderSelection })))

export function Lessons() {
  const lessons = useLessons()
  const [selected, select] = useState<string[]>([])
  const chosen = (lessons.data?.flatMap((c) => c.lessons.map((l) => l.id)) ?? []).filter((id) => selected.includes(id))
  return (
    <Page title="Lessons" about="Drop a recording anywhere on this page to bring it in." action={<ChooseRecording />}>
      <Waiting query={lessons}>
        <UnderWay courses={lessons.data ?? []} />
        {lessons.data?.every((c) => c.lessons.length === 0) && <p>There is no lesson yet. A lesson begins with a recording of your screen.</p>}
        {lessons.data?.map((course) => (
          <section key={course.id} className="mb-8">
            <h2 className="border-b-2 border-ink pb-2">
              {course.title}{' '}
              <span className="font-normal text-quiet">
                · {count(course.lessons.length, 'lesson')} · {clock(course.lessons.reduce((sum, l) => sum + l.length, 0))}
              </span>
            </h2>
            <CourseLessons
              course={course}
              selected={selected}
              select={(id, on) => select((now) => (on ? [...now, id] : now.filter((other) => other !== id)))}
            />
          </section>
        ))}
        {chosen.length > 0 && (
          <Suspense>
            <RenderSelection lessons={chosen} clear={() => select([])} />
          </Suspense>
        )}
      </Waiting>
    </Page>
  )
}
