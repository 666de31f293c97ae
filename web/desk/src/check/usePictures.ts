import { useEffect, useState } from 'react'

/** Two pictures that are shown together; the ones before stay until both are there, so that stepping does not flicker. */
export function usePictures(left: string, right: string) {
  const [shown, show] = useState<{ left: string; right: string }>()
  const [problem, setProblem] = useState('')
  useEffect(() => {
    let over = false
    // A little later, so that dragging does not take every frame on its way.
    const timer = setTimeout(() => {
      Promise.all([left, right].map(loaded))
        .then(() => {
          if (over) return
          show({ left, right })
          setProblem('')
        })
        .catch(() => over || setProblem('The pictures of this frame could not be taken. Try another one, or load the page again.'))
    }, 120)
    return () => {
      over = true
      clearTimeout(timer)
    }
  }, [left, right])
  return { shown, problem, waiting: shown?.right !== right && !problem }
}

function loaded(address: string): Promise<void> {
  return new Promise((done, failed) => {
    const image = new Image()
    image.onload = () => done()
    image.onerror = failed
    image.src = address
  })
}
