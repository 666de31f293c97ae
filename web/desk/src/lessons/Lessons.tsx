import { useState } from 'react'
import { ChooseRecording } from '../bringin/BringIn'
import { RenderSelection } from '../queue/RenderSelection'
import { Page, Waiting } from '../ui/Page'
import { clock, count } from '../ui/words'
import { CourseLessons } from './CourseLessons'
import { UnderWay } from './UnderWay'
import { useLessons } from './useLessons'

export function Lessons() {
  const lessons = useLessons()
  const [selected, select] = useState<string[]>([])
  const there = lessons.data?.flatMap((c) => c.lessons.map((l) => l.id)) ?? []
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
            <CourseLessons course={course} selected={selected} select={(id, on) => select((now) => (on ? [...now, id] : now.filter((other) => other !== id)))} />
          </section>
        ))}
        <RenderSelection lessons={there.filter((id) => selected.includes(id))} clear={() => select([])} />
      </Waiting>
    </Page>
  )
}
