import type { Range } from './completion'

/** Notes what is really watched: stretches that play, never what is jumped over. */
export function watching(video: HTMLVideoElement, changed: () => void) {
  const ranges: Range[] = []
  let last: { media: number; wall: number } | undefined
  const note = () => {
    const now = { media: video.currentTime, wall: performance.now() }
    if (last) {
      const played = now.media - last.media
      // A slow page may tell the time late; a jump moves further than the clock did.
      const possible = ((now.wall - last.wall) / 1000) * video.playbackRate + 0.5
      if (played > 0 && played <= possible) {
        const open = ranges.at(-1)
        const [start, end]: Range = [Math.floor(last.media * 1000), Math.ceil(now.media * 1000)]
        // What goes on where it was is one stretch; whoever went back plays another, and what both cover was watched again.
        if (open && Math.abs(start - open[1]) <= 50) open[1] = Math.max(open[1], end)
        else ranges.push([start, end])
        changed()
      }
    }
    last = video.paused || video.seeking ? undefined : now
  }
  const forget = () => {
    last = undefined
  }
  for (const event of ['timeupdate', 'pause', 'ended']) video.addEventListener(event, note)
  for (const event of ['seeking', 'emptied']) video.addEventListener(event, forget)
  video.addEventListener('playing', () => {
    last = { media: video.currentTime, wall: performance.now() }
  })
  return ranges
}
