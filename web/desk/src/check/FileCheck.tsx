import type { Schemas } from '../app/api'
import { Mark } from '../ui/Mark'
import { TextLink } from '../ui/TextLink'
import { clock } from '../ui/words'
import { LetPass } from './LetPass'

type Fact = Schemas['CheckedFact']

/** Measured facts about what was made, each with its verdict. What is wrong stands first, and keeps the file from being released. */
export function FileCheck({ rendition }: { rendition: Schemas['RenditionView'] }) {
  const passed = (fact: Fact) => rendition.letPass.find((p) => p.code === fact.code)
  const wrong = rendition.check.filter((f) => f.verdict === 'wrong')
  // What passes an outlet's limit cannot go there; everywhere else it can.
  const isLimit = (fact: Fact) => fact.code.startsWith('limit-')
  const open = wrong.filter((f) => !passed(f))
  const [blocking, over] = [open.filter((f) => !isLimit(f)), open.filter(isLimit)]
  const facts = [...wrong, ...rendition.check.filter((f) => f.verdict === 'right')]
  const seen = rendition.check.some((f) => f.code === 'size')
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="File check">
      <h2>
        File check{' '}
        <span className="font-normal text-quiet">
          · {rendition.profileTitle} · {wrong.length === 0 ? 'everything is right' : `${wrong.length} of ${rendition.check.length} are wrong`}
        </span>
      </h2>
      {blocking.length > 0 && (
        <p className="text-amber">It cannot be released until {blocking.length === 1 ? 'this is' : 'these are'} mended, or let pass with a reason.</p>
      )}
      {over.length > 0 && <p className="text-amber">It is over a limit of an outlet, and cannot go there until that is let pass with a reason.</p>}
      {seen && (
        <p className="mt-1">
          <TextLink to={`/renditions/${rendition.id}/compare`}>Compare it with the source</TextLink>
        </p>
      )}
      <table className="mt-1 w-full">
        <thead className="sr-only">
          <tr>
            <th>Fact</th>
            <th>Measured</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {facts.map((f) => (
            <tr key={f.code} className="border-b border-hairline align-top">
              <td className="py-1 pr-2">{f.fact}</td>
              <td className="pr-2 font-mono text-small">
                {f.measured}
                {f.at != null && seen && (
                  <TextLink className="ml-2" to={`/renditions/${rendition.id}/compare?at=${f.at}`} aria-label={`${f.fact}: look at ${clock(f.at)}`}>
                    {clock(f.at)}
                  </TextLink>
                )}
                {f.expected !== f.measured && (
                  <span className={`block font-sans ${f.verdict === 'wrong' ? 'text-brick' : 'text-quiet'}`}>should be {f.expected}</span>
                )}
                {f.verdict === 'wrong' && <LetPass rendition={rendition} fact={f} passed={passed(f)} />}
              </td>
              <td className="whitespace-nowrap">
                {f.verdict === 'right' ? <Mark kind="live">right</Mark> : passed(f) ? <Mark kind="behind">let pass</Mark> : <Mark kind="failed">wrong</Mark>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rendition.codecs && <p className="mt-1 font-mono text-small text-quiet">{rendition.codecs}</p>}
    </section>
  )
}
