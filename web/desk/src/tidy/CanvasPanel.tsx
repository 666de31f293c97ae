import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import type { Reel } from '../lessons/useLessons'
import { useWork } from '../lessons/work'
import { NumberField } from '../ui/NumberField'
import { Summary } from '../ui/Summary'
import { PartFrame } from './PartFrame'
import { PartNumbers } from './PartNumbers'

type Canvas = Schemas['Canvas']
type Frame = Schemas['RecordingFrame']

const noFrames: Frame[] = []
export const framesOf = (d: Document): Frame[] => d.frames ?? noFrames

const asRecorded: Canvas = { size: null, fit: 'whole', part: { x: 0, y: 0, width: 1, height: 1 } }
const fits: [Canvas['fit'], string, string][] = [
  ['whole', 'Whole', 'All of the recording is seen.'],
  ['fill', 'Filled', 'Nothing is black; what does not fit is left out.'],
  ['part', 'A part', 'A chosen part is seen.'],
]
const tenth = (n: number) => Number(n.toFixed(1))

/** A picture from the middle of a recording to choose a part on, once there is one. */
function pictureOf(part: Reel['parts'][number]): string | undefined {
  const moments = part.analysis?.pictureMoments ?? []
  const moment = moments[Math.floor(moments.length / 2)]
  return moment === undefined ? undefined : `/api/recordings/${part.hash}/pictures/${moment}.jpg`
}

/** What the lesson's picture is made on: its size, how the recording is brought onto it, and what that comes to. */
export function CanvasPanel() {
  const { reel, document, edit, playback } = useWork()
  // The figures are for the recording that plays.
  const part = playback.part
  const picture = pictureOf(reel.parts[part] ?? reel.parts[0])
  const canvas = document.canvas ?? asRecorded
  const recordings = reel.parts.map((p) => p.hash)
  const sizes = useQuery({ queryKey: ['canvas-sizes', recordings], queryFn: () => taken(api.POST('/api/canvas/sizes', { body: recordings })) }).data
  const frames = framesOf(document)
  const outcome = useCanvasOutcome(reel, part, canvas, frames)
  // Of several recordings, each is brought onto the canvas in its own way.
  const recording = reel.parts.length > 1 ? reel.parts[part]?.hash : undefined
  const placed = frames.find((f) => f.recording === recording) ?? canvas
  const place = (change: Partial<Pick<Canvas, 'fit' | 'part'>>) =>
    recording === undefined
      ? set(change)
      : edit((d) => ({ ...d, frames: [...framesOf(d).filter((f) => f.recording !== recording), { recording, fit: placed.fit, part: placed.part, ...change }] }))
  const set = (change: Partial<Canvas>) => edit((d) => ({ ...d, canvas: { ...(d.canvas ?? asRecorded), ...change } }))
  if (!sizes || !outcome) return null
  const chosen = canvas.size ? `${canvas.size.width}x${canvas.size.height}` : ''
  const own = canvas.size && !sizes.standard.some((s) => s.width === canvas.size?.width && s.height === canvas.size?.height)
  const take = (value: string) => {
    const [width, height] = value.split('x').map(Number)
    set({ size: value === '' ? null : value === 'own' ? { width: outcome.canvas.width, height: outcome.canvas.height - 2 } : { width, height } })
  }
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Canvas">
      <h2>Canvas</h2>
      <label className="mt-1 flex items-center gap-2">
        <span className="w-[60px] text-quiet">Size</span>
        <select value={own ? 'own' : chosen} onChange={(e) => take(e.target.value)} className="min-w-0 flex-1 border border-quiet/60 bg-field px-2 py-1">
          <option value="">
            As recorded, {sizes.recorded.width} × {sizes.recorded.height}
            {sizes.proposed == null ? ' (proposed)' : ''}
          </option>
          {sizes.standard.map((s) => (
            <option key={`${s.width}x${s.height}`} value={`${s.width}x${s.height}`}>
              {s.width} × {s.height}
              {sizes.proposed?.width === s.width && sizes.proposed.height === s.height ? ' (proposed)' : ''}
            </option>
          ))}
          <option value="own">Other numbers</option>
        </select>
      </label>
      {own && canvas.size && (
        <div className="mt-2 grid grid-cols-2 gap-x-4">
          <NumberField
            label="Width, px"
            value={canvas.size.width}
            least={64}
            most={3840}
            take={(width) => set({ size: { width, height: canvas.size?.height ?? 720 } })}
          />
          <NumberField
            label="Height, px"
            value={canvas.size.height}
            least={64}
            most={3840}
            take={(height) => set({ size: { width: canvas.size?.width ?? 1280, height } })}
          />
        </div>
      )}
      <fieldset className="mt-2 flex gap-4">
        <legend className="sr-only">How the recording is brought onto it</legend>
        {/* In the recorded size there is nothing to fill. */}
        {fits
          .filter(([fit]) => fit !== 'fill' || canvas.size || recording !== undefined)
          .map(([fit, label, about]) => (
            <label key={fit} className="flex items-center gap-1.5" title={about}>
              <input type="radio" name="canvas-fit" checked={placed.fit === fit} onChange={() => place({ fit })} />
              {label}
            </label>
          ))}
      </fieldset>
      {placed.fit === 'part' && (
        <>
          <PartFrame picture={picture} recorded={outcome.recorded} part={placed.part} take={(chosen) => place({ part: chosen })} />
          <PartNumbers part={placed.part} recorded={outcome.recorded} take={(chosen) => place({ part: chosen })} />
        </>
      )}
      <p className="mt-2">
        {reel.parts.length > 1 ? `Recording ${part + 1} of ${reel.parts.length} is shown at ` : 'Shown at '}{' '}
        <b className="font-mono">{tenth(outcome.scalePercent)} %</b>
        {outcome.wholeFactor ? ', a whole factor: text stays crisp.' : ', not a whole factor: text gets a little softer.'}
      </p>
      {outcome.notes.map((note) => (
        <p key={note} className="mt-1 text-amber">
          {note}
        </p>
      ))}
      <details className="mt-1">
        <Summary>In each profile</Summary>
        <ul className="mt-1 text-quiet">
          {outcome.delivered.map((d) => (
            <li key={d.profile}>
              {d.profile}: {d.size.width} × {d.size.height}, {tenth(d.scalePercent)} %{d.wholeFactor ? ', whole' : ''}
            </li>
          ))}
        </ul>
      </details>
    </section>
  )
}

/** How one of a lesson's recordings stands on the canvas. */
export function useCanvasOutcome(reel: Reel, recording: number, canvas: Canvas | null | undefined, frames: Frame[]) {
  const recordings = reel.parts.map((p) => p.hash)
  return useQuery({
    queryKey: ['canvas-outcome', recordings, recording, canvas ?? null, frames],
    queryFn: () =>
      taken(api.POST('/api/canvas/outcome', { body: { recordings, recording: Math.min(recording, recordings.length - 1), canvas: canvas ?? null, frames } })),
    placeholderData: (before) => before,
  }).data
}
