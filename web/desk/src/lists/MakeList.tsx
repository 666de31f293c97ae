import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { ListForm, newList } from './ListForm'

/** Making a list, and what else stands beside the way to it. */
export function MakeList({ made, children }: { made: (list: string) => void; children?: ReactNode }) {
  const client = useQueryClient()
  const [making, make] = useState(false)
  const add = useMutation({
    mutationFn: (body: Schemas['ListRequest']) => taken(api.POST('/api/lists', { body })),
    onError: () => undefined,
    onSuccess: (list) => {
      made(list.id)
      make(false)
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['lists'] }),
  })
  return making ? (
    <div className="mt-3">
      <ListForm start={newList} action="Make the list" save={add.mutate} error={add.error} cancel={() => make(false)} />
    </div>
  ) : (
    <p className="mt-3 flex gap-5">
      <Button look="link" onClick={() => make(true)}>
        Make a new list
      </Button>
      {children}
    </p>
  )
}
