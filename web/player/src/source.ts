import type HlsPlayer from 'hls.js'
import type { Player } from './player'

/** Where this script lies: what it loads only when it needs it lies beside it. */
const beside = (document.currentScript as HTMLScriptElement | null)?.src

export const cannotLoad = 'The video cannot be loaded. Load the page again; if that does not help, tell the person who gave you the link.'

/** The sizes that a lesson comes in. */
export interface Sizes {
  /** The heights of the picture, in pixels, the largest first. */
  heights: readonly number[]
  /** Keeps to one of them, or to what suits line and screen where it is null. */
  choose(height: number | null): void
}

/**
 * Gives the video its source: a file as it is, a playlist by way of pieces that are chosen for the line and the size on the screen.
 * Where there are several sizes to choose from, they are told once they are known.
 */
export function play({ video, lesson, fail }: Player, told: (sizes: Sizes) => void) {
  const address = lesson.video
  if (!address.endsWith('.m3u8')) {
    video.src = address
    return
  }
  if (location.protocol === 'file:') {
    fail('This lesson plays from a web server only: browsers load no pieces of a video from disk. Put the whole folder on a web server and open it there.')
    return
  }
  const script = document.createElement('script')
  script.src = new URL('hls.min.js', beside ?? location.href).href
  script.addEventListener('error', () => fail('A part of the player cannot be loaded. Load the page again.'))
  script.addEventListener('load', () => {
    const { Hls } = window as unknown as { Hls: typeof HlsPlayer }
    // Where pieces cannot be put together by script, the browser plays playlists itself.
    if (!Hls.isSupported()) {
      video.src = address
      return
    }
    // The page shows its own captions.
    const hls = new Hls({ capLevelToPlayerSize: true, enableWebVTT: false })
    hls.on(Hls.Events.ERROR, (_, error) => {
      if (error.fatal) fail(cannotLoad)
    })
    hls.on(Hls.Events.MANIFEST_PARSED, () => {
      const heights = [...new Set(hls.levels.map((level) => level.height))].sort((a, b) => b - a)
      if (heights.length < 2) return
      told({
        heights,
        choose(height) {
          const level = height === null ? -1 : hls.levels.findIndex((l) => l.height === height)
          // A size that somebody chose is not held back by the size on the screen.
          hls.capLevelToPlayerSize = level < 0
          hls.nextLevel = level
        },
      })
    })
    hls.loadSource(address)
    hls.attachMedia(video)
  })
  document.head.append(script)
}
