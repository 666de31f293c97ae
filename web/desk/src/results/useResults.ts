import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type LessonResults = Schemas['LessonResultsView']
export type QuestionResult = Schemas['QuestionResultView']

/** What came of a lesson. */
export const useResults = (id: string, refetchInterval?: number) =>
  useQuery({
    queryKey: ['results', id],
    queryFn: () => taken(api.GET('/api/lessons/{id}/results', { params: { path: { id } } })),
    refetchInterval,
    staleTime: 10_000,
  })

const perCent = (share: number) => `${Math.round(share * 100)} %`

/** What a question came to, in a few words; undefined before anybody answered. */
export function inBrief({ statistics, answers }: QuestionResult): string | undefined {
  if (statistics.answers === 0 || statistics.difficulty === null) return undefined
  const wrong = answers.find((a) => !a.right)
  const most = wrong && answers[0] === wrong ? ` · most took “${wrong.words}”` : ''
  return `${perCent(statistics.difficulty)} right of ${statistics.answers}${most}`
}

/** A figure between −1 and 1, with what it says. */
export function discrimination(value: number | null): string {
  if (value === null) return '–'
  // What rounds to nothing has no sign.
  const figure = (Math.round(value * 100) / 100 || 0).toFixed(2).replace('-', '−')
  return value < 0.1 ? `${figure}, tells nobody apart` : value < 0.2 ? `${figure}, weak` : figure
}
