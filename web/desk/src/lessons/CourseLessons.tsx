import { useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { pictureAddress } from '../picture/picture'
import { Columns } from '../ui/Columns'
import { Mark } from '../ui/Mark'
import { SortableList, useSortableItem } from '../ui/Sortable'
import { clock } from '../ui/words'
import { whereToGo } from './filter'

type Course = Schemas['CourseView']
type Lesson = Schemas['LessonRow']

interface Props {
  course: Course
  /** Whether all lessons stand there, so that their order can be set. */
  inOrder: boolean
  selected: readonly string[]
  select: (id: string, on: boolean) => void
}

/** A course's lessons in their order, which is set by dragging or with the keys. */
export function CourseLessons({ course, inOrder, selected, select }: Props) {
  const client = useQueryClient()
  const ids = course.lessons.map((l) => l.id)
  const moved = (order: string[]) => {
    client.setQueryData<Course[]>(['lessons'], (all) =>
      all?.map((c) =>
        c.id === course.id ? { ...c, lessons: order.map((id, i) => ({ ...(c.lessons.find((l) => l.id === id) as Lesson), position: i + 1 })) } : c,
      ),
    )
    // Also where the page is left at once.
    taken(api.PUT('/api/courses/{id}/order', { params: { path: { id: course.id } }, body: { lessons: order }, keepalive: true })).catch((refused: Error) => {
      toast.error(refused.message)
      client.invalidateQueries({ queryKey: ['lessons'] })
    })
  }

  return (
    <SortableList ids={ids} kind="lesson" nameOf={(id) => course.lessons.find((l) => l.id === id)?.title || 'Lesson without a title'} moved={moved}>
      <table className="w-full table-fixed">
        <Columns widths={['w-7', 'w-8', 'w-[112px]', '', 'w-[7%]', 'w-[19%]', 'w-[21%]', 'w-[11%]']} />
        <thead className="sr-only">
          <tr>
            <th>Selected</th>
            <th>Order</th>
            <th>Picture</th>
            <th>Lesson</th>
            <th>Length</th>
            <th>Stage</th>
            <th>Released</th>
            <th>Learners</th>
          </tr>
        </thead>
        <tbody>
          {course.lessons.map((l) => (
            <LessonLine key={l.id} lesson={l} alone={ids.length === 1 || !inOrder} selected={selected.includes(l.id)} select={(on) => select(l.id, on)} />
          ))}
        </tbody>
      </table>
    </SortableList>
  )
}

function LessonLine({ lesson: l, alone, selected, select }: { lesson: Lesson; alone: boolean; selected: boolean; select: (on: boolean) => void }) {
  const { item, isDragging, grip } = useSortableItem(l.id, l.title || 'the lesson without a title')
  return (
    <tr {...item} className={`border-b border-hairline align-top ${isDragging ? 'relative z-10 bg-field' : ''}`}>
      <td className="py-2.5">
        <input
          type="checkbox"
          aria-label={`Select ${l.title || 'the lesson without a title'}`}
          className="mt-1 size-4 accent-copper"
          checked={selected}
          onChange={(e) => select(e.target.checked)}
        />
      </td>
      <td className="py-2.5">{!alone && grip}</td>
      <td className="py-2">
        <div className="aspect-video w-24 border border-hairline bg-field">
          {l.stage !== 'being looked through' && (
            <img src={pictureAddress(l.id, null, l.revision, true)} alt="" loading="lazy" className="size-full object-contain" />
          )}
        </div>
      </td>
      <td className="py-2.5 pr-4 wrap-anywhere">
        <Link to={whereToGo(l)} className="text-large hover:underline">
          {l.position}&ensp;{l.title || <span className="text-amber">Needs a title</span>}
        </Link>
        <span className="block pl-5 text-small text-quiet">
          {l.shortTitle && <>in lists: {l.shortTitle} · </>}
          {l.fileName}
        </span>
      </td>
      <td className="py-2.5 pr-4 text-right font-mono">{clock(l.length)}</td>
      <td className="py-2.5 pr-4">
        {l.stage}
        {l.next.words && <span className="block text-small">Next: {l.next.words.charAt(0).toLowerCase() + l.next.words.slice(1)}</span>}
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
  )
}
