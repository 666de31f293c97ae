import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { count } from '../ui/words'
import { theSurvey, usual } from './survey'

/** What learners are asked about the lesson at its end. */
export function AskAtEnd({ select }: { select: (id: string | undefined) => void }) {
  const { document, reel, playback, edit } = useWork()
  const { survey } = document
  const show = () => {
    playback.seek(Math.max(0, reel.length - 1))
    select(theSurvey)
  }
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Survey">
      <h2>
        Survey <span className="font-normal text-quiet">· {survey ? count(survey.items.length, 'item') : 'none'}</span>
      </h2>
      <div className="mt-2">
        {survey ? (
          <Button look="link" onClick={show}>
            Go to it, at the end
          </Button>
        ) : (
          <Button
            look="link"
            onClick={() => {
              edit((d) => ({ ...d, survey: usual() }))
              show()
            }}
          >
            Ask what they think of it
          </Button>
        )}
      </div>
    </section>
  )
}
