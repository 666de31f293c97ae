import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import type { Question } from './questions'

export type Look = Schemas['QuestionLook']

const afterMs = 300

/** What keeps a question from being asked, and how learners get it: as the server says it of what is written, a moment after the last sign. */
export function useLook(question: Question): Look | undefined {
  const [settled, setSettled] = useState(question)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(question), afterMs)
    return () => clearTimeout(timer)
  }, [question])
  const { data } = useQuery({
    queryKey: ['question look', settled],
    queryFn: () => taken(api.POST('/api/questions/look', { body: [settled] })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  })
  return data?.[0]
}
