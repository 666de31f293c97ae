import { Link } from 'react-router'
import { ChooseRecording } from '../bringin/BringIn'
import { Mark } from '../ui/Mark'
import { Page, Waiting } from '../ui/Page'
import { clock, count } from '../ui/words'
import { useLessons } from './useLessons'

export function Lessons() {
  const lessons = useLessons()
  return (
    <Page title="Lessons" about="Drop a recording anywhere on this page to bring it in." action={<ChooseRecording />}>
      <Waiting query={lessons}>
        {lessons.data?.every((c) => c.lessons.length === 0) && <p>There is no lesson yet. A lesson begins with a recording of your screen.</p>}
        {lessons.data?.map((course) => (
          <section key={course.id} className="mb-8">
            <h2 className="border-b-2 border-ink pb-2">
              {course.title}{' '}
              <span className="font-normal text-quiet">
                · {count(course.lessons.length, 'lesson')} · {clock(course.lessons.reduce((sum, l) => sum + l.length, 0))}
              </span>
            </h2>
            <table className="w-full">
              <thead className="sr-only">
                <tr>
                  <th>Lesson</th>
                  <th>Length</th>
                  <th>Stage</th>
                  <th>Released</th>
                  <th>Learners</th>
                </tr>
              </thead>
              <tbody>
                {course.lessons.map((l) => (
                  <tr key={l.id} className="border-b border-hairline align-top">
                    <td className="py-2.5 pr-4">
                      <Link to={`/lessons/${l.id}/mark-up`} className="text-[17px] hover:underline">
                        {l.position}&ensp;{l.title || <span className="text-amber">Needs a title</span>}
                      </Link>
                      <span className="block pl-5 text-[13px] text-quiet">{l.fileName}</span>
                    </td>
                    <td className="py-2.5 pr-4 text-right font-mono">{clock(l.length)}</td>
                    <td className="py-2.5 pr-4">
                      {l.stage}
                      <span className="block text-[13px] text-quiet">revision {l.revision}</span>
                    </td>
                    <td className="py-2.5 pr-4">
                      {l.releases.length === 0 ? (
                        <Mark kind="nothing">Not released</Mark>
                      ) : (
                        l.releases.map((r) => (
                          <span key={r.outlet} className="block">
                            <Mark kind={r.behind ? 'behind' : 'live'}>
                              {r.outlet}
                              {r.behind ? ', behind' : ''}
                            </Mark>
                          </span>
                        ))
                      )}
                    </td>
                    <td className="py-2.5 text-quiet">{l.learners > 0 ? `${l.completed} of ${l.learners} complete` : ''}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
      </Waiting>
    </Page>
  )
}
