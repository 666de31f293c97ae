import type { Schemas } from '../app/api'
import { Mark } from '../ui/Mark'
import { count } from '../ui/words'

/** What directories and apps would say of the feed, each with its rule. */
export function Findings({ findings, unlisted }: { findings: Schemas['FeedFinding'][]; unlisted: boolean }) {
  const wrong = findings.filter((f) => f.weight === 'wrong').length
  const verdict =
    wrong > 0
      ? `${count(wrong, 'thing keeps', 'things keep')} it out of directories`
      : unlisted
        ? 'nothing is wrong; directories keep it out, as you asked'
        : 'directories can take it'
  return (
    <section>
      <h2>
        Feed check <span className="font-normal text-quiet">· {verdict}</span>
      </h2>
      {findings.length === 0 && (
        <p className="text-quiet">Nothing was found against RSS 2.0, the iTunes and Podcasting 2.0 namespaces and the directories’ requirements.</p>
      )}
      <ul className="border-t border-hairline">
        {findings.map((f) => (
          <li key={f.rule + f.where} className="border-b border-hairline py-1.5">
            {f.weight === 'wrong' ? <Mark kind="failed">Wrong</Mark> : <Mark kind="behind">Advice</Mark>}
            <span className="ml-3 text-quiet">{f.where}</span>
            <span className="block">{f.sentence}</span>
            <span className="block font-mono text-fine text-quiet">{f.rule}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}
