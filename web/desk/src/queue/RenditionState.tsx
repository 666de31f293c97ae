import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { TextLink } from '../ui/TextLink'
import { about, size } from '../ui/words'
import { useQueueAct } from './useQueue'

/** Seconds of the lesson that are made in a second. */
function speed(r: Schemas['RenditionView']) {
  return r.secondsLeft && r.length > 0 ? `, ${((r.length * (1 - r.progress)) / 1000 / r.secondsLeft).toFixed(1)} times as fast as it plays` : ''
}

/** How far one rendition is, in words and as a bar, and what can be done about it. */
export function RenditionState({ rendition }: { rendition: Schemas['RenditionView'] }) {
  const { mutate } = useQueueAct()
  const act = (act: Parameters<typeof mutate>[0]['act'], label: string) => (
    <Button look="link" onClick={() => mutate({ id: rendition.id, act })}>
      {label}
    </Button>
  )
  switch (rendition.state) {
    case 'waiting':
      return (
        <span className="flex flex-wrap gap-x-4">
          <Mark kind="nothing">Waiting for its turn, then {about(rendition.estimatedTime / 1000)}</Mark>
          {act('first', 'Make it the next')}
          {act('hold', 'Keep it for later')}
          {act('cancel', 'Stop it')}
        </span>
      )
    case 'working': {
      const percent = Math.floor(rendition.progress * 100)
      return (
        <span className="flex flex-wrap items-center gap-x-4">
          <span
            role="progressbar"
            aria-label={`Rendering ${rendition.lessonTitle}`}
            aria-valuenow={percent}
            aria-valuemin={0}
            aria-valuemax={100}
            className="h-[6px] w-[140px] bg-hairline"
          >
            <span className="block h-full bg-ink" style={{ width: `${percent}%` }} />
          </span>
          <span>
            Rendering, {percent} %{rendition.secondsLeft != null ? `, ${about(rendition.secondsLeft)} to go${speed(rendition)}` : ''}
          </span>
          {act('hold', 'Keep it for later')}
          {act('cancel', 'Stop it')}
        </span>
      )
    }
    case 'done':
      return (
        <span className="flex flex-wrap gap-x-4">
          <Mark kind="live">Ready, {size(rendition.bytes)}</Mark>
          <TextLink href={`/api/renditions/${rendition.id}/file`} download>
            Download
          </TextLink>
        </span>
      )
    case 'failed':
      return (
        <span>
          <Mark kind="failed">Failed. {rendition.advice}</Mark> {act('go-on', 'Try again')}
          <details className="mt-1">
            <summary className="cursor-pointer text-quiet">What the encoder said</summary>
            <pre className="mt-1 whitespace-pre-wrap font-mono text-small">{rendition.said}</pre>
          </details>
        </span>
      )
    case 'held':
      return (
        <span className="flex flex-wrap gap-x-4">
          <Mark kind="nothing">Kept for later</Mark>
          {act('go-on', 'Go on with it')}
          {act('cancel', 'Stop it')}
        </span>
      )
    default:
      return (
        <span className="flex flex-wrap gap-x-4">
          <Mark kind="nothing">Stopped; nothing was kept</Mark>
          {act('go-on', 'Try again')}
        </span>
      )
  }
}
