import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { choices, everything, type Filter, isEverything, nowhere } from './filter'

interface Props {
  courses: readonly Schemas['CourseView'][]
  filter: Filter
  change: (filter: Filter) => void
  words: string
  search: (words: string) => void
}

/** What the list is searched and filtered by. */
export function FilterLine({ courses, filter, change, words, search }: Props) {
  const { stages, outlets, authors } = choices(courses)
  const select = (label: string, value: string, all: string, values: readonly (readonly [string, string])[], to: (value: string) => Filter) => (
    <span className="flex items-center gap-1.5">
      <label htmlFor={`filter-${label}`} className="text-quiet">
        {label}
      </label>
      <select id={`filter-${label}`} value={value} onChange={(e) => change(to(e.target.value))} className="border border-quiet/60 bg-field px-1.5 py-1">
        <option value="">{all}</option>
        {values.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </span>
  )
  return (
    <search className="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2">
      <input
        type="search"
        aria-label="Search in lessons"
        placeholder="Search what lessons say"
        value={words}
        onChange={(e) => search(e.target.value)}
        className="w-64 border border-quiet/60 bg-field px-2 py-1"
      />
      {select(
        'Stage',
        filter.stage,
        'any',
        stages.map((s) => [s, s]),
        (stage) => ({ ...filter, stage }),
      )}
      {select('Released', filter.outlet, 'anywhere or not', [...outlets.map((o) => [o, o] as const), [nowhere, 'nowhere']], (outlet) => ({
        ...filter,
        outlet,
      }))}
      {authors.length > 1 &&
        select(
          'Author',
          filter.author,
          'anybody',
          authors.map((a) => [a, a]),
          (author) => ({ ...filter, author }),
        )}
      <label className="flex items-center gap-1.5">
        <input type="checkbox" className="size-4 accent-copper" checked={filter.behind} onChange={(e) => change({ ...filter, behind: e.target.checked })} />
        behind
      </label>
      {!isEverything(filter) && (
        <Button look="link" onClick={() => change(everything)}>
          Show all
        </Button>
      )}
    </search>
  )
}
