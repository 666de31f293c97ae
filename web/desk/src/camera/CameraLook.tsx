import type { Schemas } from '../app/api'
import { useWork } from '../lessons/work'
import { PartFrame } from '../tidy/PartFrame'
import { PartNumbers } from '../tidy/PartNumbers'
import { Button } from '../ui/Button'
import { NumberField } from '../ui/NumberField'
import { Summary } from '../ui/Summary'
import { clock } from '../ui/words'
import { isWhole, type Look, lookOf, type Stretch, shownIn, shownWords } from './camera'

const corners: [Look['corner'], string][] = [
  ['topLeft', 'top left'],
  ['topRight', 'top right'],
  ['bottomLeft', 'bottom left'],
  ['bottomRight', 'bottom right'],
]

/** How cameras stand on the lesson's picture, once for all of it, and the stretches in which they are shown otherwise. */
export function CameraLook({ camera, stretches }: { camera: Schemas['CameraView']; stretches: readonly Stretch[] }) {
  const { document, edit, playback } = useWork()
  const look = lookOf(document)
  const set = (change: Partial<Look>) => edit((d) => ({ ...d, cameraLook: { ...lookOf(d), ...change } }))
  const borders = !isWhole(camera.proposed) && isWhole(look.part)
  return (
    <>
      <div className="mt-3 flex flex-wrap items-start gap-x-6 gap-y-2">
        <fieldset>
          <legend className="text-quiet">Usually</legend>
          {shownWords.map(([shown, words]) => (
            <label key={shown} className="flex min-h-6 items-center gap-1.5">
              <input type="radio" name="camera-usually" checked={look.usually === shown} onChange={() => set({ usually: shown })} />
              {words}
            </label>
          ))}
        </fieldset>
        <fieldset>
          <legend className="text-quiet">Corner</legend>
          <div className="mt-1 grid w-fit grid-cols-2 gap-1">
            {corners.map(([corner, label]) => (
              <label key={corner} className="grid size-7 place-items-center border border-quiet/60 has-[:checked]:border-copper has-[:checked]:bg-copper/20">
                <input type="radio" name="camera-corner" aria-label={label} checked={look.corner === corner} onChange={() => set({ corner })} />
              </label>
            ))}
          </div>
        </fieldset>
        <div className="grid w-[200px] grid-cols-2 gap-x-4 gap-y-1">
          <NumberField label="Width, %" value={look.widthPercent} least={8} most={50} take={(widthPercent) => set({ widthPercent })} />
          <NumberField label="Rounded, %" value={look.roundedPercent} least={0} most={100} take={(roundedPercent) => set({ roundedPercent })} />
          <NumberField label="Edges, %" value={look.distancePercent} least={0} most={15} take={(distancePercent) => set({ distancePercent })} />
        </div>
      </div>
      <label className="mt-2 flex min-h-6 items-center gap-2">
        <input type="checkbox" checked={look.keepsClear} onChange={(e) => set({ keepsClear: e.target.checked })} />
        Keep clear of what happens on the screen
      </label>
      {borders && (
        <p className="mt-1 text-amber">
          The camera’s picture has black borders.{' '}
          <Button look="link" onClick={() => set({ part: camera.proposed })}>
            Leave them out
          </Button>
        </p>
      )}
      <details className="mt-1">
        <Summary>{isWhole(look.part) ? 'See a part of it' : 'The part of it that is seen'}</Summary>
        <PartFrame picture={`/api/recordings/${camera.recording}/pictures/0.jpg`} recorded={camera.size} part={look.part} take={(part) => set({ part })} />
        <p className="mt-1 text-quiet">Set once, it holds for the whole lesson. Large, as much of it is seen as fills the picture.</p>
        <PartNumbers part={look.part} recorded={camera.size} take={(part) => set({ part })} />
      </details>
      {stretches.length > 0 && (
        <ul className="mt-2" aria-label="Shown otherwise">
          {stretches.map((s) => (
            <li key={s.id} className="flex items-baseline gap-3 py-0.5 [&>button]:min-h-6">
              <Button look="link" className="font-mono text-small" onClick={() => playback.seek(s.span.start)}>
                {clock(s.span.start)} – {clock(s.span.end)}
              </Button>
              <span>{shownWords.find(([shown]) => shown === s.shown)?.[1]}</span>
              <Button
                look="link"
                className="ml-auto"
                aria-label={`As usually from ${clock(s.span.start)}`}
                onClick={() => edit((d) => ({ ...d, cameraStretches: shownIn(d.cameraStretches, s.span, look.usually, look.usually, s.id) }))}
              >
                As usually
              </Button>
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
