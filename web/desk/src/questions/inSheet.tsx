import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { QuestionBox } from './QuestionBox'

/** About how high a box is, in pixels: closed, and while it is written. */
const px = { closed: 104, open: 520 }

/** Questions, as boxes where they are asked, while a lesson is marked up or tidied. */
export function useQuestions({ stage, selected, select }: Looking): SheetThing[] {
  const { questions } = useWork().document
  return useMemo(
    () =>
      stage === 'mark-up' || stage === 'tidy'
        ? questions.map((question) => ({
            key: `question ${question.id}`,
            at: question.at,
            place: 'below',
            px: selected === question.id ? px.open : px.closed,
            show: (struck) => <QuestionBox question={question} struck={struck} open={selected === question.id} select={select} />,
          }))
        : [],
    [questions, stage, selected, select],
  )
}
