import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { SurveyBox } from './SurveyBox'
import { theSurvey } from './survey'

/** About how high the box is, in pixels: closed, and while it is written. */
const px = { closed: 140, open: 420 }

/** The survey, as a box at the lesson's end, while it is marked up or tidied. */
export function useSurvey({ stage, selected, select }: Looking): SheetThing[] {
  const { document, reel } = useWork()
  const { survey } = document
  const at = Math.max(0, reel.length - 1)
  return useMemo(() => {
    if (!survey || (stage !== 'mark-up' && stage !== 'tidy')) return []
    const open = selected === theSurvey
    return [
      { key: theSurvey, at, place: 'below', px: open ? px.open : px.closed, show: () => <SurveyBox survey={survey} at={at} open={open} select={select} /> },
    ]
  }, [survey, stage, at, selected, select])
}
