import { useEffect, useState } from 'react'
import type { Playback } from '../sheet/usePlayback'

/** The recording's own picture where the player stands, in full size, without what is moved in or cut off. */
export function useStill(playback: Playback, wanted: boolean): string | undefined {
  const [still, setStill] = useState<string>()
  const { video, playing } = playback
  useEffect(() => {
    const element = video.current
    if (!wanted || !element || playing) return
    let current = true
    const take = () => {
      if (!element.videoWidth || element.seeking) return
      const canvas = document.createElement('canvas')
      canvas.width = element.videoWidth
      canvas.height = element.videoHeight
      canvas.getContext('2d')?.drawImage(element, 0, 0)
      canvas.toBlob((blob) => {
        if (blob && current) setStill(URL.createObjectURL(blob))
      }, 'image/png')
    }
    take()
    element.addEventListener('seeked', take)
    element.addEventListener('loadeddata', take)
    return () => {
      current = false
      element.removeEventListener('seeked', take)
      element.removeEventListener('loadeddata', take)
    }
  }, [video, wanted, playing])
  useEffect(() => () => (still ? URL.revokeObjectURL(still) : undefined), [still])
  return wanted ? still : undefined
}
