import type { Schemas } from '../app/api'
import { lengthOf, size } from '../ui/words'

type View = Schemas['EstimateView']

/** What a file will come to: its size and the time, each with its range. */
export function Estimate({ estimate: e, encoded }: { estimate: View; encoded: number | null }) {
  if (encoded !== null)
    return (
      <span className="block">
        {size(encoded)}, encoded already; {lengthOf(e.time)} to put together and check
      </span>
    )
  return (
    <span className="block">
      about {size(e.bytes)} <span className="text-[13px] text-quiet">({between(size(e.leastBytes), size(e.mostBytes))})</span>, {lengthOf(e.time)}{' '}
      <span className="text-[13px] text-quiet">({between(lengthOf(e.leastTime), lengthOf(e.mostTime))})</span> on this machine
    </span>
  )
}

/** What follows from the size: the upload, the plays that a hosting plan carries, and what of the outlets' limits it takes. */
export function Consequences({ estimate: e }: { estimate: View }) {
  const over = e.limits.filter((l) => l.share > 1)
  return (
    <span className="block text-[13px] text-quiet">
      {lengthOf(e.upload)} to upload · {e.playsAMonth.toLocaleString('en-GB')} {e.playsAMonth === 1 ? 'play' : 'plays'} a month
      {e.limits
        .filter((l) => l.share <= 1)
        .map((l) => (
          <span key={l.sentence} className="block">
            {l.sentence}
          </span>
        ))}
      {over.map((l) => (
        <span key={l.sentence} className="block text-brick">
          Too much: {l.sentence}
        </span>
      ))}
    </span>
  )
}

/** 1.9 MB to 2.4 MB is 1.9 to 2.4 MB. */
function between(least: string, most: string) {
  if (least === most) return least
  const unit = (text: string) => text.slice(text.indexOf(' '))
  return unit(least) === unit(most) ? `${least.slice(0, least.indexOf(' '))} to ${most}` : `${least} to ${most}`
}
