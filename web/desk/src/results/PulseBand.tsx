import { count } from '../ui/words'
import { pulseIn } from './pulse'
import type { Pulse } from './useResults'

/** What learners did in a stretch, as an upright band: time runs down; how many saw it to the right, who watched again over it, who left as a notch. */
export function PulseBand({ pulse, start, end }: { pulse: Pulse; start: number; end: number }) {
  const { steps, seen, again, left } = pulseIn(pulse, start, end)
  if (steps.length === 0) return <span />
  const words = [
    `${seen} of ${count(pulse.learners, 'learner')} saw this`,
    ...(again > 0 ? [`${again} watched it again`] : []),
    ...(left > 0 ? [`${left} left here`] : []),
  ].join(', ')
  const across = (learners: number) => (20 * learners) / pulse.learners
  const down = (at: number) => (100 * (at - start)) / (end - start)
  const high = Math.max(100 / Math.max(1, (end - start) / pulse.step), 1)
  return (
    <svg role="img" aria-label={words} viewBox="0 0 26 100" preserveAspectRatio="none" className="absolute inset-0 h-full w-full">
      <title>{words}</title>
      {steps.map((s) => (
        <g key={s.at}>
          <rect x={0} y={down(s.at)} width={across(s.seen)} height={high} className="fill-hairline" />
          <rect x={0} y={down(s.at)} width={across(s.again)} height={high} className="fill-lagoon" />
          {s.left > 0 && <rect x={21} y={down(s.at)} width={5} height={Math.max(high, 3)} className="fill-amber" />}
        </g>
      ))}
    </svg>
  )
}
