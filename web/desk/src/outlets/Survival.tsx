import type { Schemas } from '../app/api'
import { Mark } from '../ui/Mark'
import { useOutletKinds, useOutlets } from './useOutlets'

/** What an outlet takes, and what of a lesson survives where: every kind of outlet beside this one, from what each declares. */
export function Survival({ id }: { id: string }) {
  const outlet = useOutlets().data?.find((o) => o.id === id)
  const kinds = useOutletKinds().data ?? []
  if (!outlet || kinds.length === 0) return null
  const of = outlet.kind
  const ordered = [...kinds].sort((a, b) => Number(b.code === of) - Number(a.code === of))
  const parts = [...new Set(ordered.flatMap((k) => k.carries.map((c) => c.what)))]
  return (
    <section>
      <p className="mb-4">It takes {outlet.takes}.</p>
      <h2>What of a lesson survives where</h2>
      <div className="overflow-x-auto">
        <table className="w-full table-fixed border-t border-hairline">
          <thead>
            <tr className="border-b border-hairline text-left align-top">
              <th className="py-1.5">Of the lesson</th>
              {ordered.map((k) => (
                <th key={k.code} className={`px-2 py-1.5 ${k.code === of ? '' : 'font-normal text-quiet'}`}>
                  {k.name}
                  {k.code === of && <span className="block font-normal text-small">this outlet</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {parts.map((part) => (
              <tr key={part} className="border-b border-hairline align-top">
                <th className="py-1.5 text-left">{part}</th>
                {ordered.map((k) => (
                  <td key={k.code} className="px-2 py-1.5 text-small">
                    <Fate carried={k.carries.find((c) => c.what === part)} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}

function Fate({ carried }: { carried: Schemas['Carried'] | undefined }) {
  if (!carried || carried.lost) return <Mark kind="nothing">not there</Mark>
  return <Mark kind={carried.as ? 'behind' : 'live'}>{carried.as ?? 'as in the lesson'}</Mark>
}
