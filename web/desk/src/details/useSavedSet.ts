import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { toast } from 'sonner'
import type { DetailSet } from './details'

export interface SavedSet {
  /** What is said, with what is still on its way to be kept. */
  now: DetailSet
  change: (how: (before: DetailSet) => DetailSet) => void
}

/**
 * Details that are saved as soon as each is said: what is said next is said of what was said last, also where that is not kept yet.
 * @param own what is kept
 * @param queryKey under which the query lies that says what is kept
 * @param put keeps it
 */
export function useSavedSet(own: DetailSet, queryKey: string[], put: (set: DetailSet) => Promise<unknown>): SavedSet {
  const client = useQueryClient()
  const latest = useRef<DetailSet>(undefined)
  const [pending, setPending] = useState<DetailSet>()
  const save = useMutation({
    // One after the other, so that the last one said is the one that is kept.
    scope: { id: queryKey.join(' ') },
    mutationFn: put,
    onError: (problem) => toast.error(problem.message),
    onSettled: async (_, __, set) => {
      await Promise.all([queryKey, ['details'], ['releases'], ['board'], ['lessons']].map((key) => client.invalidateQueries({ queryKey: key })))
      if (latest.current !== set) return
      latest.current = undefined
      setPending(undefined)
    },
  })
  return {
    now: pending ?? own,
    change: (how) => {
      const next = how(latest.current ?? own)
      latest.current = next
      setPending(next)
      save.mutate(next)
    },
  }
}
