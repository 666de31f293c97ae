import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'

export type Look = Schemas['CameraLook']
export type Clock = Schemas['CameraClock']
export type Shown = Schemas['CameraShown']
export type Stretch = Schemas['CameraStretch']
export type Cameras = Schemas['CamerasView']
type Part = Schemas['PicturePart']

export const shownWords: [Shown, string][] = [
  ['small', 'Small'],
  ['large', 'Large'],
  ['hidden', 'Not shown'],
]

const usual: Look = {
  corner: 'bottomRight',
  widthPercent: 20,
  distancePercent: 2,
  roundedPercent: 20,
  part: { x: 0, y: 0, width: 1, height: 1 },
  keepsClear: true,
  usually: 'small',
}

export const lookOf = (d: Document): Look => d.cameraLook ?? usual

export const isWhole = (part: Part) => part.x === 0 && part.y === 0 && part.width === 1 && part.height === 1

/** The lesson with a camera over one of its recordings, in the place of one that was there. Where the house's mark stands in its corner, it takes another. */
export function laid(d: Document, over: string, recording: string, markCorner: string | undefined): Document {
  const look = lookOf(d)
  const corner = d.cameras.length === 0 && d.houseMark && markCorner === look.corner ? 'bottomLeft' : look.corner
  return {
    ...d,
    cameras: [...d.cameras.filter((c) => c.over !== over), { over, recording, clock: { starts: 0, drift: 0 } }],
    cameraLook: corner === look.corner ? d.cameraLook : { ...look, corner },
  }
}

export const withClock = (d: Document, over: string, clock: Clock): Document => ({
  ...d,
  cameras: d.cameras.map((c) => (c.over === over ? { ...c, clock } : c)),
})

/** Without the last camera, nothing says how one is shown. */
export function without(d: Document, over: string): Document {
  const cameras = d.cameras.filter((c) => c.over !== over)
  return { ...d, cameras, cameraStretches: cameras.length > 0 ? d.cameraStretches : [] }
}

const spanned = (start: number, end: number) => ({ start: Math.round(start), end: Math.round(end), length: Math.round(end) - Math.round(start) })

const shortest = 200

/** The stretches with another one among them: what lies under it gives way; where it says what is usual, nothing needs to be said. */
export function shownIn(stretches: readonly Stretch[], span: { start: number; end: number }, shown: Shown, usually: Shown, id: string): Stretch[] {
  const left = stretches.flatMap((s) => {
    if (s.span.end <= span.start || s.span.start >= span.end) return [s]
    const pieces = [
      { ...s, span: spanned(s.span.start, span.start) },
      { ...s, id: s.span.start < span.start ? `${s.id}-${id}` : s.id, span: spanned(span.end, s.span.end) },
    ]
    return pieces.filter((p) => p.span.length >= shortest)
  })
  const own = shown === usually ? [] : [{ id, shown, span: spanned(span.start, span.end) }]
  return [...left, ...own].sort((a, b) => a.span.start - b.span.start)
}

/** The moment of the camera's recording that belongs to one of the screen's, in milliseconds. */
export const inCamera = (clock: Clock, screen: number) => (screen - clock.starts) * (1 + clock.drift / 1e6)

/** What is seen of a camera at a moment of the reel. */
export const seenAt = (cameras: Cameras, ms: number) => cameras.seen.find((s) => s.span.start <= ms && ms < s.span.end)
