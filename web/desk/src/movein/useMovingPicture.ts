import { type RefObject, useEffect } from 'react'
import type { Playback } from '../sheet/usePlayback'
import { seenAt, type ViewPath } from './viewPath'

/** Moves an element that holds the whole page so that what is seen fills its frame, at every frame that is drawn. */
export function useMovingPicture(element: RefObject<HTMLElement | null>, path: ViewPath | undefined, playback: Playback) {
  const { follow, now, part } = playback
  useEffect(() => {
    const place = (ms: number) => {
      if (!element.current) return
      if (!path?.parts[part]) {
        element.current.style.transform = ''
        return
      }
      const seen = seenAt(path, part, ms)
      const { page } = path.parts[part]
      const share = (part: number, of: number) => `${(-100 * part) / of}%`
      const larger = `scale(${page.width / seen.width}, ${page.height / seen.height})`
      element.current.style.transform = `${larger} translate(${share(seen.x, page.width)}, ${share(seen.y, page.height)})`
    }
    place(now())
    return follow(place)
  }, [element, path, part, follow, now])
}
