import '../../../player/src/over.css'
import '../../../player/src/survey/survey.css'
import { useEffect, useRef, useState } from 'react'
import { form } from '../../../player/src/survey/form'
import { useAllLacks } from '../lessons/useLacks'
import { useWork } from '../lessons/work'
import { PlacedBox } from '../sheet/PlacedBox'
import { Button } from '../ui/Button'
import { itemKind } from './kinds'
import { type Survey, theSurvey } from './survey'
import { WriteSurvey } from './WriteSurvey'

interface Props {
  survey: Survey
  at: number
  open: boolean
  select: (id: string | undefined) => void
}

/** What learners are asked about the lesson, where it is: at its end. */
export function SurveyBox({ survey, at, open, select }: Props) {
  const { edit } = useWork()
  const [trying, setTrying] = useState(false)
  const lacks = (useAllLacks() ?? []).filter((l) => l.of === 'survey').map((l) => l.why)
  return (
    <PlacedBox
      name="survey"
      id={theSurvey}
      at={at}
      terms={['survey at the lesson’s end', survey.named ? 'with names' : 'anonymous']}
      struck={false}
      open={open}
      select={select}
      remove={() => edit((d) => ({ ...d, survey: null }))}
      lacks={lacks}
      more={
        lacks.length === 0 &&
        !trying && (
          <Button look="link" aria-label="Try the survey" onClick={() => setTrying(true)}>
            Try it
          </Button>
        )
      }
      below={trying && <Trying survey={survey} close={() => setTrying(false)} />}
    >
      {open ? (
        <WriteSurvey survey={survey} change={(to) => edit((d) => ({ ...d, survey: to }))} />
      ) : (
        <>
          {survey.title && <p className="text-large font-bold">{survey.title}</p>}
          <ol className="list-decimal pl-5">
            {survey.items.map((item) => {
              const { Brief } = itemKind(item.kind)
              return (
                <li key={item.id}>
                  {item.text}{' '}
                  <span className="text-quiet">
                    <Brief item={item} />
                  </span>
                </li>
              )
            })}
          </ol>
        </>
      )}
    </PlacedBox>
  )
}

/** The player's own form; nothing of it is sent. */
function Trying({ survey, close }: { survey: Survey; close: () => void }) {
  const place = useRef<HTMLDivElement>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: another survey begins anew
  useEffect(() => {
    place.current?.replaceChildren(form(survey, { send: async () => null, close }).element)
  }, [survey])
  return (
    <div className="mt-2 border-t border-hairline pt-2">
      <div ref={place} className="bg-[#1d2129] p-3" />
    </div>
  )
}
