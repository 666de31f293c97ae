/** How close one looks at the sheet, from the whole lesson on one screen to single frames. */
export interface Scale {
  id: 'whole' | 'minutes' | 'pictures' | 'seconds' | 'frames'
  label: string
  /** The longest that one row stands for, in milliseconds. */
  longest: number
  everyPicture: boolean
  /** The height of a row in pixels, before it is measured. */
  row: number
  /** The width of its picture in pixels. */
  picture: number
  /** Whether each row shows its own frame, which is taken when one looks. */
  ownFrame: boolean
}

const tightRow = 30
const heading = 44

/** All scales, for a lesson of a length, a sheet of a height in pixels, and frames of a length. */
export function scalesOf(lengthMs: number, heightPx: number, sections: number, frameMs: number): Scale[] {
  const rows = Math.max(6, Math.floor((heightPx - sections * (heading + tightRow / 2)) / tightRow))
  return [
    { id: 'whole', label: 'Whole lesson', longest: Math.max(1000, lengthMs / rows), everyPicture: false, row: tightRow, picture: 46, ownFrame: false },
    { id: 'minutes', label: 'By the half minute', longest: 30_000, everyPicture: false, row: 58, picture: 96, ownFrame: false },
    { id: 'pictures', label: 'By picture', longest: 15_000, everyPicture: true, row: 88, picture: 140, ownFrame: false },
    { id: 'seconds', label: 'By the second', longest: 1000, everyPicture: false, row: 88, picture: 140, ownFrame: true },
    { id: 'frames', label: 'Frame by frame', longest: frameMs, everyPicture: false, row: 88, picture: 140, ownFrame: true },
  ]
}
