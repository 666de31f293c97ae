import { Link } from 'react-router'
import { Page, Waiting } from '../ui/Page'
import { count, day } from '../ui/words'
import { RenditionState } from './RenditionState'
import { useQueue } from './useQueue'

export function Queue() {
  const queue = useQueue()
  const list = queue.data ?? []
  const open = list.filter((r) => r.state === 'waiting' || r.state === 'working')
  return (
    <Page title="Queue" about={open.length === 0 ? 'Nothing is under way.' : `${count(open.length, 'rendition')} under way. You can leave; a mail comes when each is done.`}>
      <Waiting query={queue}>
        {list.length === 0 ? (
          <p>
            Renditions stand here while they are made. Open a lesson and go to <b>Deliver</b> to render one.
          </p>
        ) : (
          <table className="w-full">
            <thead>
              <tr className="border-b-2 border-ink">
                <th className="py-2">Lesson</th>
                <th>Profile</th>
                <th>State</th>
                <th>Asked for</th>
              </tr>
            </thead>
            <tbody>
              {list.map((r) => (
                <tr key={r.id} className="border-b border-hairline align-top">
                  <td className="py-2 pr-4">
                    <Link className="text-copper underline underline-offset-2" to={`/lessons/${r.lessonId}/deliver`}>
                      {r.lessonTitle}
                    </Link>
                  </td>
                  <td className="py-2 pr-4">{r.profileTitle}</td>
                  <td className="py-2 pr-4">
                    <RenditionState rendition={r} />
                  </td>
                  <td className="py-2 whitespace-nowrap text-quiet">{day(r.requestedAt)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Waiting>
    </Page>
  )
}
