import { TextLine } from '../captions/TextLine'
import { usePulse } from '../results/useResults'
import { RunSheet } from '../sheet/RunSheet'
import type { Looking } from '../sheet/thing'
import { StretchActions } from '../tidy/StretchActions'
import { useTidying } from '../tidy/tidying'
import { useInSheet } from './useInSheet'
import { useWork } from './work'

/** The run sheet of the lesson that is worked on; where it is tidied, stretches can be selected. */
export function LessonSheet(looking: Looking) {
  const { stretch, setStretch } = useTidying()
  const things = useInSheet(looking)
  const pulse = usePulse(useWork().lessonId).data
  const tidying = looking.stage === 'tidy'
  return (
    <RunSheet
      things={things}
      stretch={tidying ? stretch : undefined}
      setStretch={tidying ? setStretch : undefined}
      above={looking.stage === 'mark-up' && <TextLine />}
      pulse={pulse && pulse.learners > 0 ? pulse : undefined}
      beside={tidying && stretch && <StretchActions stretch={stretch} />}
    />
  )
}
