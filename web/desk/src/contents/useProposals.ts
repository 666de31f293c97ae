import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useMemo } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { useWork } from '../lessons/work'
import { open, type Proposal, withProposals } from './proposals'

type View = Schemas['ProposalsView']
type Kept = Schemas['Proposing']

/** The sections that are proposed, and what can be done with them. */
export function useProposals() {
  const { lessonId, document, edit } = useWork()
  const client = useQueryClient()
  const key = useMemo(() => ['proposals', lessonId], [lessonId])
  const { data } = useQuery({ queryKey: key, queryFn: () => taken(api.GET('/api/lessons/{id}/proposals', { params: { path: { id: lessonId } } })) })
  const proposals = useMemo(() => (data ? open(data.proposals, document.sections, data.proposing.left) : []), [data, document.sections])
  const { mutate } = useMutation({
    mutationFn: (wanted: Kept) => taken(api.PUT('/api/lessons/{id}/proposals', { params: { path: { id: lessonId } }, body: wanted })),
    onMutate: (wanted) => client.setQueryData<View>(key, (before) => before && { ...before, proposing: wanted }),
    onSuccess: (view) => client.setQueryData(key, view),
    onError: (refused) => {
      toast.error(refused.message)
      client.invalidateQueries({ queryKey: key })
    },
  })
  const proposing = useCallback(() => client.getQueryData<View>(key)?.proposing, [client, key])
  const take = useCallback((some: Proposal[]) => edit((d) => ({ ...d, sections: withProposals(d.sections, some, () => crypto.randomUUID()) })), [edit])
  const leave = useCallback(
    (some: Proposal[]) => {
      const now = proposing()
      if (now) mutate({ ...now, left: [...now.left, ...some.map((p) => p.at)] })
    },
    [proposing, mutate],
  )
  const change = useCallback(
    (to: Partial<Kept>) => {
      const now = proposing()
      if (now) mutate({ ...now, ...to })
    },
    [proposing, mutate],
  )
  const again = useMutation({
    mutationFn: () => taken(api.POST('/api/lessons/{id}/proposals/again', { params: { path: { id: lessonId } } })),
    onSuccess: (view) => client.setQueryData(key, view),
    onError: (refused) => toast.error(refused.message),
  })
  return { data, proposals, take, leave, change, tryAgain: () => again.mutate() }
}
