import { DetailRows } from './DetailRows'
import type { DetailSet, Field } from './details'
import { useSavedSet } from './useSavedSet'

interface Props {
  codes: (field: Field) => boolean
  own: DetailSet
  inherited?: DetailSet
  from?: (code: string) => string | undefined
  /** Under which the query lies that says what is kept. */
  queryKey: string[]
  put: (set: DetailSet) => Promise<unknown>
}

/** Details that are saved as soon as each is said. */
export function SavedDetails({ codes, own, inherited = {}, from = () => undefined, queryKey, put }: Props) {
  const saved = useSavedSet(own, queryKey, put)
  return <DetailRows codes={codes} own={saved.now} inherited={inherited} from={from} change={saved.change} />
}
