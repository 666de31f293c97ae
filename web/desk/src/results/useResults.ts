import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type LessonResults = Schemas['LessonResultsView']
export type QuestionResult = Schemas['QuestionResultView']
export type SurveyResults = Schemas['SurveyView']
export type AmongChoices = Schemas['AmongChoices']
export type Pulse = Schemas['LessonPulse']

/** Of whom results are asked for: those at an outlet, those in a group; everybody without. */
export interface Among {
  outlet?: string
  group?: string
}

const everybody: Among = {}
/** What came is not asked for anew with every look. */
const staleTime = 10_000

/** What came of a lesson. */
export const useResults = (id: string, among = everybody, refetchInterval?: number) =>
  useQuery({
    queryKey: ['results', id, among],
    queryFn: () => taken(api.GET('/api/lessons/{id}/results', { params: { path: { id }, query: among } })),
    refetchInterval,
    staleTime,
  })

/** Where it was taken, and the groups of which somebody took it. */
export const useAmong = (id: string) =>
  useQuery({ queryKey: ['results among', id], queryFn: () => taken(api.GET('/api/lessons/{id}/results/among', { params: { path: { id } } })), staleTime })

/** Where learners leave it, and where they watch again. */
export const usePulse = (id: string, among = everybody) =>
  useQuery({
    queryKey: ['pulse', id, among],
    queryFn: () => taken(api.GET('/api/lessons/{id}/results/pulse', { params: { path: { id }, query: among } })),
    staleTime: 60_000,
  })

/** What was said of it; null where nobody is asked. */
export const useSurveyResults = (id: string, among = everybody) =>
  useQuery({
    queryKey: ['survey results', id, among],
    queryFn: async () => (await taken(api.GET('/api/lessons/{id}/results/survey', { params: { path: { id }, query: among } }))) || null,
    staleTime,
  })

/** What came of everything, course by course. */
export const useOutcomes = (refetchInterval: number) => useQuery({ queryKey: ['outcomes'], queryFn: () => taken(api.GET('/api/results')), refetchInterval })

export const perCent = (share: number) => `${Math.round(share * 100)} %`

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
