import { useQueryClient } from '@tanstack/react-query'
import { memo, useMemo } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Page, Waiting } from '../ui/Page'
import { SortableList, useSortableItem } from '../ui/Sortable'
import { TextLink } from '../ui/TextLink'
import { about, count, day } from '../ui/words'
import { RenditionState } from './RenditionState'
import { TellWhenDone } from './TellWhenDone'
import { useQueue } from './useQueue'

type Rendition = Schemas['RenditionView']

export function Queue() {
  const client = useQueryClient()
  const queue = useQueue()
  const list = queue.data ?? []
  const open = list.filter((r) => r.state === 'waiting' || r.state === 'working')
  const waiting = list.filter((r) => r.state === 'waiting')
  // While only progress changes, the order does not, and nothing that waits is drawn again.
  const inOrder = waiting.map((r) => r.id).join()
  const ids = useMemo(() => (inOrder === '' ? [] : inOrder.split(',')), [inOrder])
  const moved = (order: string[]) => {
    client.setQueryData<Rendition[]>(['queue'], (all) => {
      const sorted = order.map((id) => all?.find((r) => r.id === id) as Rendition)
      return all?.map((r) => (r.state === 'waiting' ? (sorted.shift() as Rendition) : r))
    })
    taken(api.PUT('/api/queue/order', { body: { renditions: order } }))
      .catch((refused: Error) => toast.error(refused.message))
      .finally(() => client.invalidateQueries({ queryKey: ['queue'] }))
  }
  return (
    <Page
      title="Queue"
      about={
        open.length === 0
          ? 'Nothing is under way.'
          : `${count(open.length, 'rendition')} under way, ${about(secondsLeft(open))} for all. You can leave; one mail comes when what you asked for is done.`
      }
      action={<TellWhenDone />}
    >
      <Waiting query={queue}>
        {list.length === 0 ? (
          <p>
            Renditions stand here while they are made. Open a lesson and go to <b>Deliver</b> to render one, or select several in <b>Lessons</b>.
          </p>
        ) : (
          <SortableList ids={ids} kind="rendition" nameOf={(id) => nameOf(list.find((r) => r.id === id))} moved={moved}>
            <table className="w-full table-fixed">
              <thead>
                <tr className="border-b-2 border-ink">
                  <th className="w-8 py-2">
                    <span className="sr-only">Order</span>
                  </th>
                  <th className="w-[19%]">Lesson</th>
                  <th className="w-[12%]">Profile</th>
                  <th>State</th>
                  <th className="w-[9rem]">Asked for</th>
                </tr>
              </thead>
              <tbody>
                {list.map((r) =>
                  r.state === 'waiting' ? <WaitingLine key={r.id} rendition={r} alone={waiting.length === 1} /> : <Line key={r.id} rendition={r} />,
                )}
              </tbody>
            </table>
          </SortableList>
        )}
      </Waiting>
    </Page>
  )
}

const nameOf = (r?: Rendition) => (r ? `${r.lessonTitle}, ${r.profileTitle}` : '')

/** One that waits can be moved; it goes in the order in which they stand. */
const WaitingLine = memo(function WaitingLine({ rendition, alone }: { rendition: Rendition; alone: boolean }) {
  const { item, isDragging, grip } = useSortableItem(rendition.id, nameOf(rendition))
  return <Line rendition={rendition} row={{ ...item, className: isDragging ? 'relative z-10 bg-field' : '' }} grip={alone ? null : grip} />
})

const Line = memo(function Line({ rendition: r, row, grip }: { rendition: Rendition; row?: React.ComponentProps<'tr'>; grip?: React.ReactNode }) {
  return (
    <tr {...row} className={`border-b border-hairline align-top ${row?.className ?? ''}`}>
      <td className="w-8 py-2">{grip}</td>
      <td className="py-2 pr-4">
        <TextLink to={`/lessons/${r.lessonId}/deliver`}>{r.lessonTitle}</TextLink>
      </td>
      <td className="py-2 pr-4">{r.profileTitle}</td>
      <td className="py-2 pr-4">
        <RenditionState rendition={r} />
      </td>
      <td className="py-2 whitespace-nowrap text-quiet">{day(r.requestedAt)}</td>
    </tr>
  )
})

/** What is worked on of one lesson is made in one pass and ends together; what waits comes after. */
function secondsLeft(open: Rendition[]) {
  const working = new Map<string, number>()
  for (const r of open.filter((r) => r.state === 'working'))
    working.set(r.lessonId, Math.max(working.get(r.lessonId) ?? 0, r.secondsLeft ?? r.estimatedTime / 1000))
  return [...working.values()].reduce((sum, s) => sum + s, 0) + open.filter((r) => r.state === 'waiting').reduce((sum, r) => sum + r.estimatedTime / 1000, 0)
}
