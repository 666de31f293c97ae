import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Copyable } from '../ui/Copyable'
import { Page, Waiting } from '../ui/Page'
import { SortableList, useSortableItem } from '../ui/Sortable'
import { TextLink } from '../ui/TextLink'
import { count } from '../ui/words'
import { ListForm } from './ListForm'
import { MakeList } from './MakeList'
import { type LessonList, useAllLists } from './useLists'

/** All lists across courses: who may see each, its lessons in their order, and what of it is hidden from whom. */
export function ListsPage() {
  const client = useQueryClient()
  const lists = useAllLists()
  const [open, setOpen] = useState<string>()
  const changed = () => client.invalidateQueries({ queryKey: ['lists'] })
  return (
    <Page title="Lists" about="Lessons of any course in an order of their own. A lesson is put into a list where it is released.">
      <Waiting query={lists}>
        <div className="max-w-3xl">
          {lists.data?.length === 0 && <p className="text-quiet">None yet.</p>}
          <ul>
            {lists.data?.map((list) => (
              <li key={list.id} className="border-b border-hairline py-2">
                <div className="flex flex-wrap items-baseline justify-between gap-x-6">
                  <span>
                    <b>{list.name}</b> <span className="text-quiet">{list.count === 0 ? 'empty yet' : count(list.count, 'lesson')}</span>
                  </span>
                  <Button
                    look="link"
                    aria-expanded={open === list.id}
                    aria-label={open === list.id ? `Close ${list.name}` : `Open ${list.name}`}
                    onClick={() => setOpen(open === list.id ? undefined : list.id)}
                  >
                    {open === list.id ? 'Close' : 'Open'}
                  </Button>
                </div>
                {list.hidden && <p className="text-small text-amber">{list.hidden}</p>}
                {open === list.id && <ListOpen list={list} changed={changed} />}
              </li>
            ))}
          </ul>
          <MakeList made={setOpen} />
        </div>
      </Waiting>
    </Page>
  )
}

function ListOpen({ list, changed }: { list: LessonList; changed: () => void }) {
  const client = useQueryClient()
  const at = { params: { path: { id: list.id } } }
  const key = ['lists', list.id, 'lessons']
  const lessons = useQuery({ queryKey: key, queryFn: () => taken(api.GET('/api/lists/{id}/lessons', at)) })
  const settled = { onError: (problem: Error) => toast.error(problem.message), onSettled: changed }
  const save = useMutation({ mutationFn: (body: Schemas['ListRequest']) => taken(api.PUT('/api/lists/{id}', { ...at, body })), onSettled: changed })
  const remove = useMutation({ mutationFn: () => taken(api.DELETE('/api/lists/{id}', at)), ...settled })
  const order = useMutation({
    mutationFn: (ids: string[]) => taken(api.PUT('/api/lists/{id}/order', { ...at, body: { lessons: ids } })),
    onMutate: (ids) =>
      client.setQueryData<Schemas['ListedView'][]>(key, (now) => now && [...now].sort((a, b) => ids.indexOf(a.lessonId) - ids.indexOf(b.lessonId))),
    ...settled,
  })
  const takeOut = useMutation({
    mutationFn: (lesson: string) => taken(api.DELETE('/api/lists/{id}/lessons/{lesson}', { params: { path: { id: list.id, lesson } } })),
    ...settled,
  })
  const ids = lessons.data?.map((l) => l.lessonId) ?? []
  const titleOf = (id: string) => lessons.data?.find((l) => l.lessonId === id)?.title ?? ''
  return (
    <div className="mt-3 grid gap-6 pb-3 lg:grid-cols-2">
      <SortableList ids={ids} kind="lesson" nameOf={titleOf} moved={order.mutate}>
        <ol>
          {lessons.data?.map((l, i) => (
            <LessonLine key={l.lessonId} lesson={l} place={i + 1} takeOut={() => takeOut.mutate(l.lessonId)} />
          ))}
          {lessons.data?.length === 0 && <li className="text-quiet">Nothing is in it yet. Tick it where a lesson is released.</li>}
        </ol>
      </SortableList>
      <div className="flex flex-col gap-4">
        <ListForm
          key={list.id}
          start={{ name: list.name, visibility: list.visibility, named: list.named }}
          action="Save"
          save={save.mutate}
          error={save.error}
        />
        <div className="text-small">
          <Copyable label="Link" text={list.link} open />
        </div>
        <p>
          <Button
            look="link"
            onClick={() => window.confirm(`Remove the list ${list.name}? Its link leads nowhere then; the lessons stay where they are.`) && remove.mutate()}
          >
            Remove the list
          </Button>
        </p>
      </div>
    </div>
  )
}

function LessonLine({ lesson, place, takeOut }: { lesson: Schemas['ListedView']; place: number; takeOut: () => void }) {
  const { item, grip } = useSortableItem(lesson.lessonId, lesson.title)
  return (
    <li {...item} className="flex items-baseline gap-2 border-t border-hairline bg-paper py-1">
      {grip}
      <span className="w-6 font-mono text-quiet">{place}</span>
      <span className="flex-1">
        <TextLink to={`/lessons/${lesson.lessonId}/deliver`}>{lesson.title}</TextLink>
        {lesson.hiddenFrom && <span className="block text-small text-amber">hidden from {lesson.hiddenFrom}</span>}
      </span>
      <Button look="link" className="text-small" aria-label={`Take ${lesson.title} out`} onClick={takeOut}>
        Take out
      </Button>
    </li>
  )
}
