import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { useVisibilities } from '../people/usePeople'
import { Button } from '../ui/Button'
import { Summary } from '../ui/Summary'
import { TextLink } from '../ui/TextLink'
import { count, lengthOf, size } from '../ui/words'
import { cellOf } from './selection'

type Action = Schemas['BoardAction']
type Line = Schemas['BoardLineView']
type Totals = Schemas['BoardTotals']

const actions: [Action, string][] = [
  ['release', 'Release as they are now'],
  ['open', 'Change who may see them'],
  ['takeDown', 'Take down'],
]
const words: Record<Schemas['ReleaseStep'], string> = {
  encode: 'render',
  finish: 'put together',
  check: 'check',
  copy: 'copy as it is taken there',
  pack: 'pack',
  publish: 'show',
  deliver: 'send',
}

const nothing: Record<Action, string> = {
  release: 'Nothing is to be done: it stands there as it is wanted.',
  open: 'Nothing is to be done: whoever is to see it may.',
  takeDown: 'Nothing is to be done: nothing stands there.',
}

/** What would be done in the selected cells, before anything happens; and the button that does it. */
export function Plan({ selected, outlets, done }: { selected: ReadonlySet<string>; outlets: Schemas['BoardOutlet'][]; done: () => void }) {
  const client = useQueryClient()
  // People are named at each lesson.
  const levels = useVisibilities().data ?? []
  const [action, setAction] = useState<Action>('release')
  const [visibility, setVisibility] = useState<Schemas['Visibility'] | ''>('')
  const cells = [...selected].map(cellOf)
  const asksWho = action !== 'takeDown' && outlets.some((o) => o.asksWho && cells.some((c) => c.outletId === o.id))
  const request = { action, cells, visibility: asksWho && visibility !== '' ? visibility : null }
  const ready = action !== 'open' || request.visibility !== null
  const plan = useQuery({
    queryKey: ['board', 'plan', request],
    queryFn: () => taken(api.POST('/api/board/plan', { body: request })),
    placeholderData: keepPreviousData,
    enabled: ready,
  })
  const apply = useMutation({
    mutationFn: () => taken(api.POST('/api/board/apply', { body: request })),
    onSuccess: ({ refused }) => {
      // What failed stays selected, so that it can be tried again alone.
      if (refused.length === 0) done()
      else toast.error(`${count(refused.length, 'cell')} could not be done: ${refused[0].sentence}`)
    },
    onError: (problem) => toast.error(problem.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['board'] }),
  })
  const now = plan.data
  const said = now ? sayTotals(now.totals) : []
  return (
    <section aria-label="Plan" className="sticky top-4 w-80 shrink-0 border-l border-hairline pl-4">
      <h2>
        {count(selected.size, 'cell')} selected{' '}
        <Button look="link" className="font-normal text-small" onClick={done}>
          Clear
        </Button>
      </h2>
      <fieldset className="mt-2">
        <legend className="sr-only">What is to be done</legend>
        {actions.map(([value, label]) => (
          <label key={value} className="flex items-center gap-2 py-0.5">
            <input type="radio" name="action" className="accent-copper" checked={action === value} onChange={() => setAction(value)} />
            {label}
          </label>
        ))}
      </fieldset>
      {asksWho && (
        <label className="mt-2 block">
          Who may see them on Wexel’s pages
          <select
            className="mt-1 w-full border border-quiet/60 bg-field px-2 py-1"
            value={visibility}
            onChange={(e) => setVisibility(e.target.value as Schemas['Visibility'] | '')}
          >
            <option value="">{action === 'open' ? 'Choose' : 'as before, or the organisation'}</option>
            {levels
              .filter(({ level }) => level !== 'named')
              .map(({ level, name }) => (
                <option key={level} value={level}>
                  {name}
                </option>
              ))}
          </select>
        </label>
      )}
      <div className="mt-3 border-t border-hairline pt-3" role="status">
        {!ready && <p>Choose who is to see them.</p>}
        {ready && plan.error && <p className="text-brick">{plan.error.message}</p>}
        {ready && plan.isPending && <p className="text-quiet">Working out what is to be done…</p>}
        {ready && now && (
          <>
            {said.length === 0 && <p>{now.refused.length > 0 ? 'Nothing can be done yet.' : nothing[action]}</p>}
            <ul>
              {said.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
          </>
        )}
      </div>
      {ready && now && (
        <>
          {said.length > 0 && (
            <Button className="mt-3" onClick={() => apply.mutate()} disabled={apply.isPending || plan.isPlaceholderData}>
              {apply.isPending ? 'Beginning…' : action === 'takeDown' ? `Take ${now.lines.length} down` : `Apply to ${count(now.lines.length, 'cell')}`}
            </Button>
          )}
          {now.losses.length > 0 && (
            <div className="mt-3 text-small text-quiet">
              {now.losses.map((l) => (
                <p key={l.outlet}>
                  {l.outlet}: {l.sentence}
                </p>
              ))}
            </div>
          )}
          {now.refused.length > 0 && (
            <div className="mt-3 border-l-2 border-amber pl-3">
              <p className="text-amber">{count(now.refused.length, 'cell')} left out</p>
              <ul className="max-h-52 overflow-y-auto text-small">
                {now.refused.map((r) => (
                  <li key={`${r.cell.lessonId}${r.cell.outletId}`} className="py-1">
                    <TextLink to={`/lessons/${r.cell.lessonId}/deliver`}>{r.lesson || 'Needs a title'}</TextLink>, {r.outlet}: {r.sentence}
                  </li>
                ))}
              </ul>
            </div>
          )}
          {now.lines.length > 0 && (
            <details className="mt-3">
              <Summary>Cell by cell</Summary>
              <ul className="max-h-72 overflow-y-auto text-small">
                {now.lines.map((l) => (
                  <li key={`${l.cell.lessonId}${l.cell.outletId}`} className="border-b border-hairline py-1">
                    <b>{l.lesson}</b>, {l.outlet}
                    <span className="block text-quiet">{sayLine(l)}</span>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </>
      )}
    </section>
  )
}

/** What a plan comes to, a line each. */
export function sayTotals(t: Totals): string[] {
  return [
    t.renders > 0 && `Render ${count(t.renders, 'file')}, about ${lengthOf(t.time)}.`,
    t.sendBytes > 0 && `Send about ${size(t.sendBytes)}.`,
    t.pagesNew > 0 && `${count(t.pagesNew, 'release')} where nothing stood.`,
    t.pagesChange > 0 && `${count(t.pagesChange, 'release')} ${t.pagesChange === 1 ? 'changes' : 'change'}.`,
    t.opens > 0 && `${count(t.opens, 'release')} ${t.opens === 1 ? 'changes' : 'change'} who may see it, and nothing else.`,
    t.takenDown > 0 &&
      `${count(t.takenDown, 'release')} taken down; ${t.takenDown === 1 ? 'its address is kept, and says so' : 'their addresses are kept, and say so'}.`,
    t.addressesStay > 0 && `${count(t.addressesStay, 'address', 'addresses')} ${t.addressesStay === 1 ? 'stays' : 'stay'}.`,
    t.nothing > 0 && t.renders + t.pagesNew + t.pagesChange + t.opens + t.takenDown > 0 && `${count(t.nothing, 'cell')} as wanted already.`,
  ].filter((sentence): sentence is string => typeof sentence === 'string')
}

function sayLine(l: Line): string {
  if (l.takesDown) return 'taken down'
  if (l.opens) return 'who may see it changes'
  const steps = l.steps.map((step) => words[step]).join(', ')
  return [steps, l.time > 0 && `about ${lengthOf(l.time)}`, l.bytes > 0 && `about ${size(l.bytes)}`, l.keepsAddress && 'the address stays']
    .filter(Boolean)
    .join(' · ')
}
