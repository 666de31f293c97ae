import { useMutation, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { DetailRows } from './DetailRows'
import type { DetailSet, Field } from './details'

interface Props {
  codes: (field: Field) => boolean
  own: DetailSet
  inherited?: DetailSet
  from?: (code: string) => string | undefined
  /** Under which the query lies that says what is kept. */
  queryKey: string[]
  put: (set: DetailSet) => Promise<unknown>
  missing?: Record<string, string>
}

/** Details that are saved as soon as each is said. */
export function SavedDetails({ codes, own, inherited = {}, from = () => undefined, queryKey, put, missing }: Props) {
  const client = useQueryClient()
  const save = useMutation({
    mutationFn: put,
    onError: (problem) => toast.error(problem.message),
    onSettled: () => Promise.all([queryKey, ['details'], ['releases'], ['board'], ['lessons']].map((key) => client.invalidateQueries({ queryKey: key }))),
  })
  return <DetailRows codes={codes} own={own} inherited={inherited} from={from} save={(set) => save.mutate(set)} missing={missing} />
}
