import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, taken } from '../app/api'
import { Mark } from '../ui/Mark'
import { Page, Waiting } from '../ui/Page'
import { day } from '../ui/words'
import { WholeCourses } from './WholeCourses'

/** Lessons down, outlets across. */
export function Board() {
  const board = useQuery({ queryKey: ['board'], queryFn: () => taken(api.GET('/api/board')) })
  const { outlets, lessons } = board.data ?? { outlets: [], lessons: [] }
  const behind = lessons.flatMap((l) => l.cells).filter((c) => c?.behind).length
  return (
    <Page
      title="Release board"
      about={
        behind === 0
          ? 'No release is behind its lesson.'
          : `${behind === 1 ? '1 release is behind its lesson' : `${behind} releases are behind their lessons`}. Open one to bring it up to date.`
      }
    >
      <Waiting query={board}>
        <table className="w-full">
          <thead>
            <tr className="border-b-2 border-ink">
              <th className="py-2">
                Lesson<span className="block font-normal text-quiet">in teaching order</span>
              </th>
              {outlets.map((o) => (
                <th key={o.id}>
                  {o.name}
                  <span className="block font-normal text-quiet">{o.kindName}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {lessons.map((row) => (
              <tr key={row.lessonId} className="border-b border-hairline">
                <td className="py-2">
                  <Link to={`/lessons/${row.lessonId}/deliver`} className="hover:underline">
                    {row.position}&ensp;{row.title || 'Needs a title'}
                  </Link>
                  <span className="block text-small text-quiet">{row.course}</span>
                </td>
                {row.cells.map((cell, i) => (
                  <td key={outlets[i].id} className="py-2">
                    {cell ? <Mark kind={cell.behind ? 'behind' : 'live'}>{cell.behind ? 'Behind' : 'Live'}</Mark> : <Mark kind="nothing">Not there</Mark>}
                    {cell && <span className="block pl-5 text-small text-quiet">since {day(cell.releasedAt)}</span>}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <WholeCourses />
      </Waiting>
    </Page>
  )
}
