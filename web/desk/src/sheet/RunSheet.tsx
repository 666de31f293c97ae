import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useKey } from '../app/keys'
import { useWork } from '../lessons/work'
import type { Pulse } from '../results/useResults'
import { clock } from '../ui/words'
import { blockAt, type Cut, layOut } from './blocks'
import { ScaleChoice } from './ScaleChoice'
import { SheetRow } from './SheetRow'
import { type Scale, scalesOf } from './scales'
import type { SheetThing } from './thing'
import { useRows } from './useRows'
import { useStretch } from './useStretch'

interface Props {
  /** All that stands in it. */
  things: SheetThing[]
  stretch: Cut | undefined
  /** Given where stretches can be selected. */
  setStretch?: (stretch: Cut | undefined) => void
  /** What can be done with the selected stretch, shown beside it. */
  beside?: ReactNode
  /** What stands in the line above it. */
  above?: ReactNode
  /** What learners did; undefined while nobody took the lesson. */
  pulse?: Pulse
}

const none: never[] = []
/** How far the playing mark stands above its line, in pixels. */
const markAbove = 11
const farMs = 1500

/** The lesson as a page that is read from top to bottom: time, pictures, sound, what is said, sections as headings. */
export function RunSheet({ things, stretch, setStretch, beside, above, pulse }: Props) {
  const { document, reel, frameMs, playback } = useWork()
  const { analysis, length } = reel
  const scroller = useRef<HTMLElement>(null)
  const sheet = useRef<HTMLDivElement>(null)
  const line = useRef<HTMLDivElement>(null)
  const told = useRef(0)
  const [opened, setOpened] = useState<ReadonlySet<number>>(new Set())
  const [scaleId, setScaleId] = useState<Scale['id']>('pictures')
  const viewHeight = useHeight(scroller)
  const scales = useMemo(() => scalesOf(length, viewHeight, document.sections.length, frameMs), [length, viewHeight, document.sections.length, frameMs])
  const scale = scales.find((s) => s.id === scaleId) ?? scales[0]
  const whole = scale.id === 'whole'
  const pictures = analysis?.pictureMoments ?? none
  const blocks = useMemo(
    () =>
      layOut({
        pictures,
        // With all of it on one screen there is no room for what is short.
        things: whole ? things.filter((t) => t.place !== 'below') : things,
        cuts: whole ? document.cuts.filter((c) => c.length >= scale.longest) : document.cuts,
        joints: reel.parts,
        quiet: whole ? none : reel.quiet,
        opened,
        length,
        longest: scale.longest,
        everyPicture: scale.everyPicture,
      }),
    [things, document.cuts, pictures, reel.quiet, reel.parts, opened, length, scale, whole],
  )
  const rows = useRows(scroller, sheet, blocks, scale)
  const { virtualizer, placeOf, show } = rows
  const height = virtualizer.getTotalSize()
  const { band, press, pressEdge } = useStretch({ rows, height, blocks, playback, stretch, setStretch })
  const { follow, now, seek } = playback
  const pressed = useRef(press)
  pressed.current = press
  const pressRow = useCallback((event: Parameters<typeof press>[0]) => pressed.current(event), [])
  const open = useCallback((fold: number) => setOpened((before) => new Set([...before, fold])), [])

  // The playing line moves outside React: it follows every frame, and only it changes.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the height stands for the rows' places
  useEffect(() => {
    const place = (ms: number) => {
      const top = placeOf(ms)
      // Who goes far from outside the sheet wants to see the place in it.
      const jumped = Math.abs(ms - told.current) > farMs
      told.current = ms
      const view = scroller.current
      if (jumped && top != null && view && (top < view.scrollTop || top > view.scrollTop + view.clientHeight)) show(ms)
      if (top == null || !line.current) return
      line.current.style.transform = `translateY(${top}px)`
      const label = line.current.firstElementChild as HTMLElement | null
      if (!label) return
      label.textContent = clock(ms)
      // At the sheet's top there is no room above the line.
      label.style.translate = top < markAbove ? `0 ${-top}px` : ''
    }
    place(now())
    return follow(place)
  }, [placeOf, show, follow, now, height])

  // Another scale or fold: what was looked at stays in view.
  const kept = useRef({ scaleId, ms: 0 })
  useEffect(() => {
    if (kept.current.scaleId === scaleId) return
    kept.current.scaleId = scaleId
    virtualizer.measure()
    virtualizer.scrollToIndex(Math.max(0, blockAt(blocks, kept.current.ms)), { align: 'center' })
  }, [scaleId, blocks, virtualizer])
  const chooseScale = (id: Scale['id']) => {
    kept.current.ms = stretch?.start ?? now()
    setScaleId(id)
  }
  const step = (by: 1 | -1) => {
    const index = blockAt(blocks, now() + 1)
    const to = by < 0 && now() > (blocks[index]?.start ?? 0) + 1 ? index : index + by
    const block = blocks[Math.max(0, Math.min(blocks.length - 1, to))]
    if (!block) return
    seek(block.start)
    show(block.start)
  }
  useKey('ArrowDown', () => step(1))
  useKey('ArrowUp', () => step(-1))
  useKey('+', () => chooseScale(scales[Math.min(scales.length - 1, scales.indexOf(scale) + 1)].id))
  useKey('-', () => chooseScale(scales[Math.max(0, scales.indexOf(scale) - 1)].id))

  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <ScaleChoice
        scales={scales}
        scale={scale}
        choose={chooseScale}
        folded={blocks.filter((b) => b.fold).length}
        opened={opened.size}
        fold={() => setOpened(new Set())}
      >
        {above}
      </ScaleChoice>
      <section ref={scroller} aria-label="Run sheet" className="min-h-0 flex-1 overflow-y-auto" data-testid="run-sheet">
        {!reel.analysisFailure && (!analysis || analysis.lookedUntil != null) && (
          <p role="status" className="px-6 pt-2 text-quiet">
            {analysis?.lookedUntil == null
              ? 'The pictures and the sound come while the recording is looked through.'
              : `Looked through as far as ${clock(analysis.lookedUntil)}.`}
          </p>
        )}
        <div ref={sheet} className="relative mb-16" style={{ height }}>
          <div ref={line} aria-hidden="true" className="pointer-events-none absolute left-0 right-0 top-0 z-[5] h-0 border-t-2 border-copper">
            <span className="absolute left-2 -translate-y-1/2 bg-copper px-1.5 font-mono text-small text-on-copper">0:00</span>
          </div>
          <div ref={band} hidden className="pointer-events-none absolute left-4 right-4 top-0 z-[4] border-y-2 border-lagoon bg-lagoon/10">
            {setStretch &&
              (['start', 'end'] as const).map((edge) => (
                // For pointers alone: with keys a stretch is set in the fields beside the sheet, and row by row.
                <div
                  key={edge}
                  data-beside
                  data-testid={`stretch-${edge}`}
                  onPointerDown={pressEdge(edge)}
                  className={`${handleLook} ${edge === 'start' ? 'top-0 -translate-y-1/2' : 'bottom-0 translate-y-1/2'}`}
                >
                  <span className="absolute left-1/2 top-1/2 h-1.5 w-10 -translate-x-1/2 -translate-y-1/2 rounded-full bg-lagoon" />
                </div>
              ))}
            {beside && (
              <div
                data-beside
                className="pointer-events-auto sticky top-1 m-1 ml-auto flex w-fit flex-wrap items-center gap-x-4 border border-lagoon bg-paper px-3 py-1"
              >
                {beside}
              </div>
            )}
          </div>
          <ul aria-label="Stretches of the lesson">
            {virtualizer.getVirtualItems().map((item) => {
              const block = blocks[item.index]
              return (
                <li
                  key={item.key}
                  ref={virtualizer.measureElement}
                  data-index={item.index}
                  aria-setsize={blocks.length}
                  aria-posinset={item.index + 1}
                  className="absolute left-0 top-0 w-full"
                  style={{ transform: `translateY(${item.start}px)` }}
                >
                  <SheetRow
                    block={block}
                    index={item.index}
                    reel={reel}
                    scale={scale}
                    seek={seek}
                    press={pressRow}
                    open={open}
                    selectable={setStretch !== undefined}
                    pulse={pulse}
                  />
                </li>
              )
            })}
          </ul>
        </div>
      </section>
    </div>
  )
}

/** What an edge of the selected stretch is dragged by; larger for fingers. */
const handleLook = 'pointer-events-auto absolute left-1/2 z-[6] h-6 w-24 -translate-x-1/2 cursor-ns-resize touch-none pointer-coarse:h-11'

/** The height of an element, as it changes. */
function useHeight(element: { current: HTMLElement | null }): number {
  const [height, setHeight] = useState(600)
  useEffect(() => {
    const seen = new ResizeObserver(([entry]) => setHeight(Math.round(entry.contentRect.height)))
    if (element.current) seen.observe(element.current)
    return () => seen.disconnect()
  }, [element])
  return height
}
