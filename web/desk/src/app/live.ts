import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'

/** Keeps what is on screen true. What keeps the line is loaded behind the page that it serves. */
export function useLiveNews() {
  const client = useQueryClient()
  useEffect(() => {
    let left = false
    let close: (() => void) | undefined
    import('./news').then(
      ({ listen }) => {
        if (!left) close = listen(client)
      },
      // As without the line: everything still works on reload.
      () => undefined,
    )
    return () => {
      left = true
      close?.()
    }
  }, [client])
}
