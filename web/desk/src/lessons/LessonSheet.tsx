import { TextLine } from '../captions/TextLine'
import { RunSheet } from '../sheet/RunSheet'
import type { Looking } from '../sheet/thing'
import { StretchActions } from '../tidy/StretchActions'
import { useTidying } from '../tidy/tidying'
import { useInSheet } from './useInSheet'

/** The run sheet of the lesson that is worked on; where it is tidied, stretches can be selected. */
export function LessonSheet(looking: Looking) {
  const { stretch, setStretch } = useTidying()
  const things = useInSheet(looking)
  const tidying = looking.stage === 'tidy'
  return (
    <RunSheet
      things={things}
      stretch={tidying ? stretch : undefined}
      setStretch={tidying ? setStretch : undefined}
      above={looking.stage === 'mark-up' && <TextLine />}
      beside={tidying && stretch && <StretchActions stretch={stretch} />}
    />
  )
}
