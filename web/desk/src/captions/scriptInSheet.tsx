import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { Button } from '../ui/Button'
import { clock } from '../ui/words'
import { useScript } from './useScript'

type Difference = Schemas['ScriptDifference']

const kinds: Record<Schemas['ScriptDifferenceKind'], string> = {
  leftOut: 'stands in the script and is not said',
  added: 'is said and stands not in the script',
  elsewhere: 'stands elsewhere in the script',
}

/** Where the script and the voice differ, until somebody has looked at it. */
export function useScriptNotes({ stage }: Looking): SheetThing[] {
  const { lessonId } = useWork()
  const client = useQueryClient()
  const data = useScript(lessonId)
  const { mutate } = useMutation({
    mutationFn: (left: Difference[]) => taken(api.PUT('/api/lessons/{id}/script/differences', { params: { path: { id: lessonId } }, body: left })),
    onMutate: (left) => client.setQueryData<Schemas['ScriptView'] | null>(['script', lessonId], (now) => now && { ...now, differences: left }),
    onSettled: () => client.invalidateQueries({ queryKey: ['script', lessonId] }),
  })
  return useMemo(() => {
    const differences = stage === 'mark-up' ? (data?.differences ?? []) : []
    return differences.map((d) => ({
      key: `script ${d.kind} ${d.at} ${d.words}`,
      at: d.at,
      place: 'below',
      px: 36,
      show: () => (
        <div data-beside className="ml-[92px] mr-4 mb-1 mt-0.5 flex flex-wrap items-baseline gap-x-4 border border-dashed border-amber px-3 py-1">
          <span>
            “{d.words}” <span className="text-amber">{kinds[d.kind]}</span>
          </span>
          <Button look="link" aria-label={`Seen: the script at ${clock(d.at)}`} onClick={() => mutate(differences.filter((other) => other !== d))}>
            Seen
          </Button>
        </div>
      ),
    }))
  }, [stage, data, mutate])
}
