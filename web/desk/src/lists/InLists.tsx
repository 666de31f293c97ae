import { Copyable } from '../ui/Copyable'
import { TextLink } from '../ui/TextLink'
import { count } from '../ui/words'
import { MakeList } from './MakeList'
import type { useLists } from './useLists'

/** The lists across courses in which the lesson stands, ticked in the same step as its release. */
export function InLists({ lists }: { lists: ReturnType<typeof useLists> }) {
  return (
    <section className="mt-4" data-testid="lists">
      <h2 className="border-b border-hairline py-2">
        Lists <span className="font-normal text-quiet">· lessons of any course in an order of their own</span>
      </h2>
      <ul>
        {lists.all.map((list) => (
          <li key={list.id} className="border-b border-hairline py-2">
            <label className="flex items-baseline gap-3">
              <input type="checkbox" className="h-4 w-4 accent-copper" checked={lists.isIn(list)} onChange={(e) => lists.tick(list, e.target.checked)} />
              <span>
                <b>{list.name}</b> <span className="text-quiet">{list.count === 0 ? 'empty yet' : count(list.count, 'lesson')}</span>
              </span>
            </label>
            {lists.isIn(list) && list.hidden && <p className="ml-7 text-small text-amber">{list.hidden}</p>}
            {lists.isIn(list) && list.holds && (
              <div className="ml-7 mt-1 max-w-md text-small">
                <Copyable label="Link" text={list.link} open />
              </div>
            )}
          </li>
        ))}
      </ul>
      <MakeList made={lists.wantIn}>{lists.all.length > 0 && <TextLink to="/kit/lists">All lists, and their order</TextLink>}</MakeList>
    </section>
  )
}
