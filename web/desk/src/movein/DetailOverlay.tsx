import type { Schemas } from '../app/api'
import { px } from './HardToRead'
import type { HardStretch } from './useDetail'
import type { Rect } from './viewPath'

/** Shows on the picture where it is hard to read: a thin frame around each line, a veil where detail is lost. */
export function DetailOverlay({ stretch, placed }: { stretch: HardStretch; placed: Schemas['CanvasOutcome'] }) {
  const { canvas, from, to } = placed
  const place = (box: Rect, around: number) => ({
    left: `${(100 * (to.x + ((box.x - around - from.x) * to.width) / from.width)) / canvas.width}%`,
    top: `${(100 * (to.y + ((box.y - around - from.y) * to.height) / from.height)) / canvas.height}%`,
    width: `${(100 * (box.width + 2 * around) * to.width) / from.width / canvas.width}%`,
    height: `${(100 * (box.height + 2 * around) * to.height) / from.height / canvas.height}%`,
  })
  return (
    <div aria-hidden="true" data-testid="detail-overlay" className="pointer-events-none absolute inset-0 overflow-hidden">
      {stretch.lost.map((box) => (
        <span key={`${box.x},${box.y}`} className="absolute bg-amber/10" style={place(box, 0)} />
      ))}
      {stretch.lines.map((line) => (
        <span key={`${line.box.x},${line.box.y}`} title={px(line.height)} className="absolute border border-amber/60" style={place(line.box, 6)} />
      ))}
    </div>
  )
}
