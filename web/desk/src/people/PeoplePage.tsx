import { useState } from 'react'
import { Page, Waiting } from '../ui/Page'
import { AddPeople } from './AddPeople'
import { Groups } from './Groups'
import { PersonRow } from './PersonRow'
import { usePeople } from './usePeople'

/** Who can sign in, what they do, and the groups in which they are named. */
export function PeoplePage() {
  const [find, setFind] = useState('')
  const people = usePeople({ find })
  return (
    <Page title="People" about="Who can sign in, what they do, and the groups in which they are named as those who may see a lesson.">
      <Waiting query={people}>
        {people.data && (
          <div className="grid gap-x-12 gap-y-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,420px)]">
            <section>
              <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2 pb-2">
                <h2>
                  People <span className="font-normal text-quiet">· {people.data.total.toLocaleString('en')}</span>
                </h2>
                <label className="flex items-baseline gap-2">
                  <span className="text-quiet">Find</span>
                  <input
                    type="search"
                    placeholder="part of a name or an address"
                    className="w-64 border border-quiet/60 bg-field px-2 py-1"
                    value={find}
                    onChange={(e) => setFind(e.target.value)}
                  />
                </label>
              </div>
              <table className="w-full border-t border-hairline">
                <thead className="sr-only">
                  <tr>
                    <th>Name and mail address</th>
                    <th>What they do</th>
                    <th>Groups</th>
                    <th>What can be done</th>
                  </tr>
                </thead>
                <tbody>
                  {people.data.people.map((p) => (
                    <PersonRow key={p.id} person={p} mayChange={people.data.mayChange} />
                  ))}
                </tbody>
              </table>
              {people.data.people.length === 0 && <p className="py-2 text-quiet">Nobody is called so.</p>}
              {people.data.total > people.data.people.length && (
                <p className="py-2 text-quiet">
                  These are the first {people.data.people.length} of {people.data.total.toLocaleString('en')}. Type part of a name to find others.
                </p>
              )}
            </section>
            <div>
              {people.data.mayChange ? (
                <AddPeople />
              ) : (
                <p className="mb-8 border-l-2 border-amber pl-3">People are added and changed by an administrator: {people.data.administrators.join(', ')}.</p>
              )}
              <Groups />
            </div>
          </div>
        )}
      </Waiting>
    </Page>
  )
}
