import { partAt, type Reel } from '../lessons/useLessons'

interface Props {
  reel: Reel
  /** The moment, in the reel's time. */
  at: number
  /** Whether it is the frame that stands there, or the picture that was kept for the moment. */
  frame: boolean
  width: number
  height: number
  faint: boolean
}

/** What is seen at a moment. Pictures that were kept lie many to a file, of which one is shown; while a recording is looked through, each by itself. */
export function SheetPicture({ reel, at, frame, width, height, faint }: Props) {
  const part = reel.parts[partAt(reel.parts, at)]
  const own = at - part.span.start
  const place = frame || part.picturesToAStrip === 0 ? -1 : (part.analysis?.pictureMoments.indexOf(own) ?? -1)
  if (place < 0) {
    const name = frame ? `frames/${Math.floor(((own + 1) * part.grid.numerator) / (1000 * part.grid.denominator))}` : `pictures/${own}`
    return (
      <img
        alt=""
        src={`/api/recordings/${part.hash}/${name}.jpg`}
        draggable={false}
        style={{ width, height }}
        className={`border border-hairline object-left-top ${faint ? 'object-cover opacity-40' : 'object-contain'}`}
      />
    )
  }
  const { width: across, height: down } = part.facts.picture?.shownSize ?? { width: 16, height: 9 }
  // One that is cut shows its top, as wide as the others; else all of it is seen.
  const shown = faint ? width : Math.min(width, (height * across) / down)
  const cell = (shown * down) / across
  return (
    <span
      className={`block self-start overflow-hidden border border-hairline ${faint ? 'opacity-40' : ''}`}
      style={{ width: shown, height: Math.min(cell, height) }}
    >
      <img
        alt=""
        src={`/api/recordings/${part.hash}/strips/${Math.floor(place / part.picturesToAStrip)}.jpg`}
        draggable={false}
        decoding="async"
        style={{ width: shown, height: cell * part.picturesToAStrip, maxWidth: 'none', marginTop: -cell * (place % part.picturesToAStrip) }}
      />
    </span>
  )
}
