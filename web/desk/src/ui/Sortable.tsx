import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical } from 'lucide-react'
import type { ReactNode } from 'react'

interface Props {
  /** The things in their order, by their keys. */
  ids: string[]
  /** What one of them is called: a lesson, a recording. */
  kind: string
  nameOf: (id: string) => string
  /** Told the new order. */
  moved: (ids: string[]) => void
  children: ReactNode
}

// The same objects each time: with others, every thing in the list would be drawn again whenever the list is.
const byPointer = { activationConstraint: { distance: 4 } }
const byKeys = { coordinateGetter: sortableKeyboardCoordinates }

/** Things whose order is set by dragging or with the keys, and told to a screen reader. */
export function SortableList({ ids, kind, nameOf, moved, children }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, byPointer), useSensor(KeyboardSensor, byKeys))
  const name = (id: string | number) => nameOf(String(id))
  const placeOf = (id: string | number | undefined) => `${kind} ${ids.indexOf(String(id)) + 1} of ${ids.length}`
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) moved(arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))))
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{
        screenReaderInstructions: {
          draggable: `Press space to pick the ${kind} up, the arrows to move it, space to put it down, Escape to leave it where it was.`,
        },
        announcements: {
          onDragStart: ({ active }) => `Picked up ${name(active.id)}, ${placeOf(active.id)}.`,
          onDragOver: ({ active, over }) => (over ? `${name(active.id)} would be ${placeOf(over.id)}.` : undefined),
          onDragEnd: ({ active, over }) => `${name(active.id)} is ${placeOf(over?.id ?? active.id)}.`,
          onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
        },
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

/** One of the things: what its element needs, and the grip by which it is moved. */
export function useSortableItem(id: string, label: string) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id })
  const { role, tabIndex, ...described } = attributes
  return {
    item: { ref: setNodeRef, style: { transform: CSS.Translate.toString(transform), transition } },
    isDragging,
    grip: (
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...described}
        {...listeners}
        aria-label={`Move ${label}`}
        className="grid size-6 shrink-0 cursor-grab touch-none place-items-center text-quiet hover:text-copper"
      >
        <GripVertical aria-hidden="true" size={16} />
      </button>
    ),
  }
}
