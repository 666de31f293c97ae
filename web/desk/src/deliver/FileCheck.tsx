import type { Schemas } from '../app/api'
import { Mark } from '../ui/Mark'

/** Measured facts about what was made, each with its verdict. */
export function FileCheck({ rendition }: { rendition: Schemas['RenditionView'] }) {
  const wrong = rendition.check.filter((f) => f.verdict === 'wrong').length
  return (
    <section className="mt-4 border-t border-hairline pt-3">
      <h2>
        File check{' '}
        <span className="font-normal text-quiet">
          · {rendition.profileTitle} · {wrong === 0 ? 'everything is right' : `${wrong} of ${rendition.check.length} are wrong`}
        </span>
      </h2>
      <table className="mt-1 w-full">
        <thead className="sr-only">
          <tr>
            <th>Fact</th>
            <th>Measured</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {rendition.check.map((f) => (
            <tr key={f.code} className="border-b border-hairline align-top">
              <td className="py-1 pr-2">{f.fact}</td>
              <td className="pr-2 font-mono text-[13px]">
                {f.measured}
                {f.verdict === 'wrong' && <span className="block text-brick">should be {f.expected}</span>}
              </td>
              <td className="whitespace-nowrap">{f.verdict === 'right' ? <Mark kind="live">right</Mark> : <Mark kind="failed">wrong</Mark>}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rendition.codecs && <p className="mt-1 font-mono text-[13px] text-quiet">{rendition.codecs}</p>}
    </section>
  )
}
