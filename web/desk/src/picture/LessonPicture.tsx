import { useState } from 'react'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { clock } from '../ui/words'
import { type LessonPicture as Picture, pictureAddress, sendPicture, useProposals } from './picture'

/** The picture by which the lesson is known: one that is proposed, any of its frames, or one that is given. */
export function LessonPicture() {
  const { lessonId, revision, document, playback, edit } = useWork()
  const proposals = useProposals(lessonId, revision).data?.proposals ?? []
  const [problem, setProblem] = useState<string>()
  const chosen = document.picture
  const choose = (picture: Picture | null) => {
    setProblem(undefined)
    edit((d) => ({ ...d, picture }))
  }
  const give = async (file: File) => {
    try {
      choose({ own: (await sendPicture(file)).key, at: null })
    } catch (refused) {
      setProblem((refused as Error).message)
    }
  }
  const isProposal = chosen?.at != null && proposals.includes(chosen.at)
  const stands = chosen?.own
    ? 'A picture of your own.'
    : chosen?.at != null
      ? `The frame at ${clock(chosen.at)}.`
      : proposals.length > 0
        ? 'The first that is proposed, until you choose another.'
        : 'A frame from the beginning, until the recording is looked through.'
  return (
    <section className="mt-4 border-t border-hairline pt-3">
      <h2>Picture</h2>
      <p className="mb-2 text-quiet">What lists, pages and previews show before the lesson plays. Changing it renders nothing.</p>
      <div className="flex items-start gap-4">
        <img
          src={pictureAddress(lessonId, chosen, revision)}
          alt="As it is now"
          className="aspect-video w-44 shrink-0 border border-hairline bg-field object-contain"
        />
        <div>
          <p>{stands}</p>
          <div className="mt-1 flex flex-col items-start gap-y-1">
            <Button look="link" onClick={() => choose({ at: Math.round(playback.now()), own: null })}>
              Take the frame that is shown
            </Button>
            <ChooseFile label="Choose a picture" accept="image/png,image/jpeg,image/webp" take={give}>
              Take a picture of your own
            </ChooseFile>
            {chosen && (
              <Button look="link" onClick={() => choose(null)}>
                Go back to what is proposed
              </Button>
            )}
          </div>
        </div>
      </div>
      {proposals.length > 1 && (
        <fieldset className="mt-3">
          <legend className="text-small text-quiet">Proposed: sharp, with much on them, unlike each other</legend>
          <div className="mt-1 grid grid-cols-3 gap-2">
            {proposals.map((at, i) => (
              <label key={at} className="cursor-pointer">
                <img
                  src={pictureAddress(lessonId, { at, own: null }, revision, true)}
                  alt=""
                  className={`aspect-video w-full border bg-field object-contain ${
                    chosen?.at === at || (!chosen && i === 0) ? 'border-copper outline-2 outline-copper' : 'border-hairline'
                  }`}
                />
                <span className="mt-1 flex items-center gap-1.5 font-mono text-small">
                  <input
                    type="radio"
                    name="proposed-picture"
                    className="accent-copper"
                    checked={chosen?.at === at || (!chosen && i === 0)}
                    onChange={() => choose({ at, own: null })}
                  />
                  {clock(at)}
                </span>
              </label>
            ))}
          </div>
          {chosen && !isProposal && <p className="mt-1 text-small text-quiet">None of these is taken now.</p>}
        </fieldset>
      )}
      {problem && (
        <p role="alert" className="mt-2 text-amber">
          {problem}
        </p>
      )}
    </section>
  )
}
