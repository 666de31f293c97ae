import { useQuery } from '@tanstack/react-query'
import { useDeferredValue, useMemo, useState } from 'react'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { count } from '../ui/words'
import { Grid } from './Grid'
import { Plan } from './Plan'
import { filtered, inState, type State, stateOf } from './selection'
import { WholeCourses } from './WholeCourses'

const states: [State, string][] = [
  ['all', 'however they stand'],
  ['behind', 'behind somewhere'],
  ['nothing', 'not everywhere'],
  ['working', 'on their way'],
  ['failed', 'failed somewhere'],
  ['live', 'live somewhere'],
]

/** Lessons down, outlets across. Cells are selected, what is to be done in them is planned, and then it is done. */
export function Board() {
  const board = useQuery({ queryKey: ['board'], queryFn: () => taken(api.GET('/api/board')) })
  const [words, setWords] = useState('')
  const [state, setState] = useState<State>('all')
  const [selected, select] = useState<ReadonlySet<string>>(new Set())
  const asked = useDeferredValue(words)
  const all = board.data?.lessons
  const rows = useMemo(() => filtered(all ?? [], asked, state), [all, asked, state])
  const outlets = board.data?.outlets ?? []
  const behind = useMemo(() => inState(rows, outlets, 'behind'), [rows, outlets])
  return (
    <Page title="Release board" about={sayBehind((all ?? []).flatMap((l) => l.cells).filter((c) => stateOf(c) === 'behind').length)}>
      <Waiting query={board}>
        <div className="flex items-start gap-6">
          <div className="min-w-0 flex-1">
            <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-3">
              <input
                type="search"
                aria-label="Find lessons by words of their title or course"
                placeholder="Words of a title or course"
                className="w-56 border border-quiet/60 bg-field px-2 py-1"
                value={words}
                onChange={(e) => setWords(e.target.value)}
              />
              <select
                aria-label="Show lessons"
                className="border border-quiet/60 bg-field px-2 py-1"
                value={state}
                onChange={(e) => setState(e.target.value as State)}
              >
                {states.map(([value, label]) => (
                  <option key={value} value={value}>
                    {label}
                  </option>
                ))}
              </select>
              <span role="status" className="text-quiet">
                {rows.length === all?.length ? count(rows.length, 'lesson') : `${rows.length} of ${count(all?.length ?? 0, 'lesson')}`}
              </span>
              {behind.length > 0 && (
                <Button look="link" onClick={() => select(new Set(behind))}>
                  Select what is behind ({behind.length})
                </Button>
              )}
            </div>
            {all?.length === 0 ? (
              <p>Lessons stand here once a recording is brought in.</p>
            ) : (
              <Grid rows={rows} outlets={outlets} selected={selected} select={select} />
            )}
            <WholeCourses />
          </div>
          {selected.size > 0 && <Plan selected={selected} outlets={outlets} done={() => select(new Set())} />}
        </div>
      </Waiting>
    </Page>
  )
}

const sayBehind = (behind: number) =>
  behind === 0
    ? 'No release is behind its lesson.'
    : `${behind === 1 ? '1 release is' : `${behind} releases are`} behind their lessons. Select cells to see what would be done.`
