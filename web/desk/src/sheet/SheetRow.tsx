import { Fragment, type MouseEvent, memo, type PointerEvent } from 'react'
import type { Reel } from '../lessons/useLessons'
import { PulseBand } from '../results/PulseBand'
import type { Pulse } from '../results/useResults'
import { Button } from '../ui/Button'
import { clock, exactClock, lengthOf } from '../ui/words'
import type { Block } from './blocks'
import { SheetPicture } from './SheetPicture'
import { SoundBand } from './SoundBand'
import type { Scale } from './scales'

interface Props {
  block: Block
  index: number
  reel: Reel
  scale: Scale
  seek: (ms: number) => void
  press: (event: PointerEvent<HTMLElement>) => void
  open: (fold: number) => void
  selectable: boolean
  /** What learners did; undefined while nobody took the lesson. */
  pulse: Pulse | undefined
}

/** What stands in the sheet for a stretch of time: when, what is seen, what is heard, what is said. */
export const SheetRow = memo(function SheetRow(props: Props) {
  const { block, index, scale, seek, press, selectable, pulse } = props
  const struck = block.cut !== undefined
  const go = (event: MouseEvent<HTMLElement>) => {
    if (!(event.target instanceof Element) || event.target.closest('input, button, a, [data-beside]')) return
    const box = event.currentTarget.getBoundingClientRect()
    seek(block.start + ((event.clientY - box.top) / box.height) * (block.end - block.start))
  }
  return (
    <>
      {block.headings.map((heading) => (
        <Fragment key={heading.key}>{heading.show(struck)}</Fragment>
      ))}
      {block.joint && (
        <p data-joint className="mx-4 mt-1 flex items-center gap-3 text-small text-quiet">
          <span aria-hidden="true" className="w-[76px] border-t border-quiet" />
          <span>From here: {block.joint.fileName}</span>
          <span aria-hidden="true" className="flex-1 border-t border-quiet" />
        </p>
      )}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the time beside it is a button that does the same by keyboard */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: as above */}
      <div
        data-block={index}
        data-start={block.start}
        data-end={block.end}
        data-cut={block.cut ? '' : undefined}
        onClick={go}
        onPointerDown={press}
        className={`relative grid cursor-pointer gap-x-3 px-4 py-1 hover:bg-field ${selectable ? 'select-none' : ''} ${block.cut ? 'text-quiet' : ''}`}
        style={{ gridTemplateColumns: `76px ${scale.picture}px 44px ${pulse ? '26px ' : ''}1fr` }}
      >
        <button
          type="button"
          onClick={() => seek(block.start)}
          aria-label={`Go to ${clock(block.start)}`}
          className={`self-start pt-0.5 text-right font-mono text-small text-quiet hover:text-copper ${block.cut ? 'line-through' : ''}`}
        >
          {scale.ownFrame ? exactClock(block.start).slice(0, scale.id === 'frames' ? undefined : -4) : clock(block.start)}
        </button>
        {block.fold ? <Folded {...props} /> : <Opened {...props} />}
      </div>
      {block.below.map((thing) => (
        <Fragment key={thing.key}>{thing.show(struck)}</Fragment>
      ))}
    </>
  )
})

/** One line for a stretch that is cut, or in which nothing happens. */
function Folded({ block, open, pulse }: Props) {
  const length = lengthOf(block.end - block.start)
  return (
    <p className={`${pulse ? 'col-span-4' : 'col-span-3'} flex items-center gap-3 text-quiet`}>
      <span className={block.cut ? 'line-through' : ''}>{block.cut ? `Cut, ${length}` : `${length} in which nothing changes and nobody speaks`}</span>
      <Button
        look="link"
        aria-label={`Open ${block.cut ? 'the cut' : 'what is folded'} at ${clock(block.start)}`}
        onClick={() => open((block.fold ?? block).start)}
      >
        open
      </Button>
      <span aria-hidden="true" className="flex-1 border-t border-dotted border-hairline" />
    </p>
  )
}

function Opened({ block, reel, scale, pulse }: Props) {
  const { analysis } = reel
  const tight = scale.id === 'whole'
  const at = scale.ownFrame ? block.start : block.picture
  const height = scale.row - 10
  return (
    <>
      {at === undefined ? (
        <span />
      ) : (
        <SheetPicture
          reel={reel}
          at={at}
          frame={scale.ownFrame}
          width={scale.picture}
          height={block.cut && !scale.ownFrame ? Math.min(26, height) : height}
          faint={Boolean(block.cut)}
        />
      )}
      <span className="relative">
        {analysis && <SoundBand peaks={analysis.peaks} perSecond={analysis.peaksPerSecond} start={block.start} end={block.end} />}
      </span>
      {pulse && (
        <span className="relative">
          <PulseBand pulse={pulse} start={block.start} end={block.end} />
        </span>
      )}
      <div className="min-w-0" style={{ minHeight: block.cut || at !== undefined ? undefined : Math.min(38, height) }}>
        {tight ? (
          <p className={`truncate ${block.cut ? 'line-through' : ''}`}>{block.said.map((s) => s.text).join(' ')}</p>
        ) : (
          block.said.map((s) => <Fragment key={s.key}>{s.show(block.cut !== undefined)}</Fragment>)
        )}
      </div>
    </>
  )
}
