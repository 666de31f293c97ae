import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { useQueryClient } from '@tanstack/react-query'
import { GripVertical } from 'lucide-react'
import { Link } from 'react-router'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Mark } from '../ui/Mark'
import { clock } from '../ui/words'

type Course = Schemas['CourseView']
type Lesson = Schemas['LessonRow']

/** A course's lessons in their order, which is set by dragging or with the keys. */
export function CourseLessons({ course }: { course: Course }) {
  const client = useQueryClient()
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }))
  const ids = course.lessons.map((l) => l.id)
  const titleOf = (id: string | number) => course.lessons.find((l) => l.id === id)?.title || 'Lesson without a title'
  const placeOf = (id: string | number | undefined) => ids.indexOf(String(id)) + 1

  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    const order = arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
    client.setQueryData<Course[]>(['lessons'], (all) =>
      all?.map((c) => (c.id === course.id ? { ...c, lessons: order.map((id, i) => ({ ...(c.lessons.find((l) => l.id === id) as Lesson), position: i + 1 })) } : c)),
    )
    taken(api.PUT('/api/courses/{id}/order', { params: { path: { id: course.id } }, body: { lessons: order } })).catch((refused: Error) => {
      toast.error(refused.message)
      client.invalidateQueries({ queryKey: ['lessons'] })
    })
  }

  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{
        screenReaderInstructions: { draggable: 'Press space to pick the lesson up, the arrows to move it, space to put it down, Escape to leave it where it was.' },
        announcements: {
          onDragStart: ({ active }) => `Picked up ${titleOf(active.id)}, lesson ${placeOf(active.id)} of ${ids.length}.`,
          onDragOver: ({ active, over }) => (over ? `${titleOf(active.id)} would be lesson ${placeOf(over.id)} of ${ids.length}.` : undefined),
          onDragEnd: ({ active, over }) => `${titleOf(active.id)} is lesson ${placeOf(over?.id ?? active.id)} of ${ids.length}.`,
          onDragCancel: ({ active }) => `${titleOf(active.id)} stays where it was.`,
        },
      }}
    >
      <table className="w-full">
        <thead className="sr-only">
          <tr>
            <th>Order</th>
            <th>Lesson</th>
            <th>Length</th>
            <th>Stage</th>
            <th>Released</th>
            <th>Learners</th>
          </tr>
        </thead>
        <tbody>
          <SortableContext items={ids} strategy={verticalListSortingStrategy}>
            {course.lessons.map((l) => (
              <LessonLine key={l.id} lesson={l} alone={ids.length === 1} />
            ))}
          </SortableContext>
        </tbody>
      </table>
    </DndContext>
  )
}

function LessonLine({ lesson: l, alone }: { lesson: Lesson; alone: boolean }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id: l.id })
  const { role, tabIndex, ...described } = attributes
  return (
    <tr
      ref={setNodeRef}
      className={`border-b border-hairline align-top ${isDragging ? 'relative z-10 bg-field' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <td className="w-8 py-2.5">
        {!alone && (
          <button
            type="button"
            ref={setActivatorNodeRef}
            {...described}
            {...listeners}
            aria-label={`Move ${l.title || 'the lesson without a title'}`}
            className="grid size-6 cursor-grab touch-none place-items-center text-quiet hover:text-copper"
          >
            <GripVertical aria-hidden="true" size={16} />
          </button>
        )}
      </td>
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
  )
}
