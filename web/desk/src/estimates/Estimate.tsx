import type { Schemas } from '../app/api'
import { lengthOf, size } from '../ui/words'

type View = Schemas['EstimateView']

/** What a file will come to: its size and the time. */
export function Estimate({ estimate: e, encoded }: { estimate: View; encoded: number | null }) {
  if (encoded !== null)
    return (
      <span className="block">
        {size(encoded)}, encoded already; {lengthOf(e.time)} to put together and check
      </span>
    )
  return (
    <span className="block">
      about {size(e.bytes)}, {lengthOf(e.time)} on this machine
    </span>
  )
}

/** How sure that is, and what follows from the size: the upload, the plays that a hosting plan carries, and what of the outlets' limits it takes. */
export function Consequences({ estimate: e, encoded }: { estimate: View; encoded: number | null }) {
  return (
    <>
      {encoded === null && (
        <p>
          {between(size(e.leastBytes), size(e.mostBytes))}, {between(lengthOf(e.leastTime), lengthOf(e.mostTime))}
          {e.sampled ? ', by some seconds of it' : ', by its size and length'}
        </p>
      )}
      <p>
        {lengthOf(e.upload)} to upload · {e.playsAMonth.toLocaleString('en-GB')} {e.playsAMonth === 1 ? 'play' : 'plays'} a month
      </p>
      {e.limits
        .filter((l) => l.share <= 1)
        .map((l) => (
          <p key={l.sentence}>{l.sentence}</p>
        ))}
    </>
  )
}

/** What an outlet does not take. */
export function TooMuch({ estimate: e }: { estimate: View }) {
  return e.limits
    .filter((l) => l.share > 1)
    .map((l) => (
      <span key={l.sentence} className="block text-brick">
        Too much: {l.sentence}
      </span>
    ))
}

/** 1.9 MB to 2.4 MB is 1.9 to 2.4 MB. */
function between(least: string, most: string) {
  if (least === most) return least
  const unit = (text: string) => text.slice(text.indexOf(' '))
  return unit(least) === unit(most) ? `${least.slice(0, least.indexOf(' '))} to ${most}` : `${least} to ${most}`
}
