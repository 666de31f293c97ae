import { useMutation } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { api, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'
import { withClock } from './camera'

/** Has two recordings listened to, to find how a camera lies over a screen; what is found is taken into the lesson. */
export function useFinding(edit: (change: (d: Document) => Document) => void) {
  const stopping = useRef(new AbortController())
  const mutation = useMutation({
    mutationFn: ({ over, camera }: { over: string; camera: string }) =>
      taken(api.POST('/api/cameras/find', { body: { over, camera }, signal: stopping.current.signal })),
    onSuccess: (found, { over }) => edit((d) => withClock(d, over, found.clock)),
  })
  // Whoever goes elsewhere stops it; it can be asked for again.
  useEffect(() => {
    const { current } = stopping
    return () => current.abort()
  }, [])
  return {
    find: (over: string, camera: string) => {
      if (stopping.current.signal.aborted) stopping.current = new AbortController()
      mutation.mutate({ over, camera })
    },
    stop: () => {
      stopping.current.abort()
      mutation.reset()
    },
    listening: mutation.isPending ? mutation.variables.camera : undefined,
    found: mutation.data?.sentence,
    problem: mutation.error && !stopping.current.signal.aborted ? mutation.error.message : undefined,
    of: mutation.variables?.camera,
  }
}

export type Finding = ReturnType<typeof useFinding>
