import { type CSSProperties, useEffect, useRef, useState } from 'react'
import { useWork } from '../lessons/work'
import { type Cameras, inCamera, seenAt } from './camera'
import { useCameras } from './useCameras'

/** So far the camera may be from its moment before it is brought back while it plays, in seconds. */
const mostApart = 0.12

/** The camera over the picture that plays, where it will be seen. */
export function CameraOnPicture() {
  const { document } = useWork()
  const cameras = useCameras(document)
  if (!cameras || document.cameras.length === 0) return null
  return cameras.cameras.map((_, index) => <OneCamera key={cameras.cameras[index].recording} cameras={cameras} index={index} />)
}

function OneCamera({ cameras, index }: { cameras: Cameras; index: number }) {
  const { reel, playback } = useWork()
  const { follow, now, video, playing } = playback
  const camera = cameras.cameras[index]
  const own = useRef<HTMLVideoElement>(null)
  const [seen, setSeen] = useState<Cameras['seen'][number]>()
  const start = reel.parts[camera.over]?.span.start ?? 0
  useEffect(() => {
    const keep = (ms: number) => {
      const there = seenAt(cameras, ms)
      setSeen(there?.camera === index ? there : undefined)
      const element = own.current
      if (!element || element.readyState < HTMLMediaElement.HAVE_METADATA) return
      const at = Math.max(0, inCamera(camera.clock, ms - start) / 1000)
      if (there?.camera !== index || !playing) {
        if (!element.paused) element.pause()
      } else if (element.paused && !element.ended) element.play().catch(() => undefined)
      element.playbackRate = video.current?.playbackRate ?? 1
      if (Math.abs(element.currentTime - at) > (playing ? mostApart : 0.005) && !element.seeking) element.currentTime = at
    }
    keep(now())
    const element = own.current
    const again = () => keep(now())
    element?.addEventListener('loadedmetadata', again)
    const leave = follow(keep)
    return () => {
      leave()
      element?.removeEventListener('loadedmetadata', again)
      element?.pause()
    }
  }, [cameras, camera, index, start, follow, now, video, playing])
  if (!camera.viewable) return null
  return (
    <div
      className="pointer-events-none absolute overflow-hidden"
      data-testid="camera"
      style={seen ? boxOf(seen.box, cameras.canvas) : { visibility: 'hidden' }}
    >
      <video
        ref={own}
        src={`/api/recordings/${camera.recording}/view`}
        muted
        playsInline
        preload="auto"
        tabIndex={-1}
        aria-hidden="true"
        className="absolute max-w-none object-fill"
        style={seen ? within(seen.box, camera.size) : undefined}
      />
    </div>
  )
}

type Box = Cameras['seen'][number]['box']
type Size = Cameras['canvas']
const share = (part: number, whole: number) => `${(100 * part) / whole}%`

const boxOf = ({ to, radius }: Box, canvas: Size): CSSProperties => ({
  left: share(to.x, canvas.width),
  top: share(to.y, canvas.height),
  width: share(to.width, canvas.width),
  height: share(to.height, canvas.height),
  borderRadius: `${share(radius, to.width)} / ${share(radius, to.height)}`,
})

/** All of the camera, so that the part that is seen fills the box. */
const within = ({ from }: Box, size: Size): CSSProperties => ({
  left: share(-from.x, from.width),
  top: share(-from.y, from.height),
  width: share(size.width, from.width),
  height: share(size.height, from.height),
})
