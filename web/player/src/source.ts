import type HlsPlayer from 'hls.js'

/** Where this script lies: what it loads only when it needs it lies beside it. */
const beside = (document.currentScript as HTMLScriptElement | null)?.src

/** Gives a video its source: a file as it is, a playlist by way of pieces that are chosen for the line and the size on the screen. */
export function play(video: HTMLVideoElement, address: string, fail: (sentence: string) => void) {
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
      if (error.fatal) fail('The video cannot be loaded. Load the page again; if that does not help, tell the person who gave you the link.')
    })
    hls.loadSource(address)
    hls.attachMedia(video)
  })
  document.head.append(script)
}
