import { useEffect, useState } from 'react'
import { NavLink, useParams, useSearchParams } from 'react-router'
import { useKey } from '../app/keys'
import { useText } from '../captions/useText'
import { Deliver } from '../deliver/Deliver'
import { LessonDetails } from '../details/LessonDetails'
import { MarkUp } from '../markup/MarkUp'
import { type HardStretch, useDetail } from '../movein/useDetail'
import { useMoveIns } from '../movein/useMoveIns'
import type { Cut } from '../sheet/blocks'
import { usePlayback } from '../sheet/usePlayback'
import { Viewer } from '../sheet/Viewer'
import { useMix } from '../sounds/useMix'
import { Tidy } from '../tidy/Tidy'
import { TidyingContext } from '../tidy/tidying'
import { useCutting } from '../tidy/useCutting'
import { useSuggestions } from '../tidy/useSuggestions'
import { Button } from '../ui/Button'
import { clock, count } from '../ui/words'
import { Conflict } from './Conflict'
import { Facts } from './Facts'
import { History } from './History'
import { LessonSheet } from './LessonSheet'
import { SaveState } from './SaveState'
import { recordingsOf, useLesson } from './useLesson'
import { type Reel, useReel } from './useLessons'
import { WorkContext } from './work'

const stages = [
  ['bring-in', 'Bring in'],
  ['tidy', 'Tidy'],
  ['mark-up', 'Mark up'],
  ['deliver', 'Deliver'],
] as const

/** Beside the sheet, and above it on a page that is not wide enough. */
const besideLook = 'flex-col border-l max-[1100px]:w-[360px] max-[900px]:w-full max-[900px]:flex-row max-[900px]:border-b max-[900px]:border-l-0'

const besides = { narrow: 'w-[340px] max-[900px]:h-[32vh]', wide: 'w-[440px] max-[900px]:h-[46vh]' }

const noParts: Reel['parts'] = []
const noHard: HardStretch[] = []

export function LessonPage() {
  const { id = '', stage = 'mark-up' } = useParams()
  const [search] = useSearchParams()
  const at = Number(search.get('at') ?? Number.NaN)
  const { lesson, document, problem, saving, changes, difference, edit, undo, redo, restore, settle, steps } = useLesson(id)
  const recordings = document && recordingsOf(document)
  const reel = useReel(recordings).data
  const text = useText(id, document, edit)
  const playback = usePlayback(document?.cuts ?? [], reel?.parts ?? noParts)
  const [stretch, setStretch] = useState<Cut>()
  const [selected, select] = useState<string>()
  const suggestions = useSuggestions(id, reel?.analysis?.lookedUntil === null, document, edit, playback)
  const cutting = useCutting(document, edit, stretch)
  const moveIns = useMoveIns(document, edit, playback)
  useMix(id, lesson?.revision, document, playback)
  const detail = useDetail(id, recordings?.join(','), lesson?.revision, stage === 'tidy')
  const tidying = stage === 'tidy'
  const [sheetShown, showSheet] = useState(false)
  useKey('r', () => stage === 'deliver' && showSheet((now) => !now))
  useKey('ctrl+z', undo)
  useKey('ctrl+shift+z', redo)
  const isThere = reel !== undefined
  // A link can lead to a moment.
  useEffect(() => {
    if (isThere && Number.isFinite(at)) playback.seek(at)
  }, [isThere, at, playback])
  useEffect(() => {
    if (document) window.document.title = `${document.title || 'Needs a title'} · Wexel`
    return () => {
      window.document.title = 'Wexel'
    }
  }, [document])

  if (problem)
    return (
      <p role="alert" className="p-8 text-brick">
        {problem}
      </p>
    )
  if (!lesson || !document || !reel) return <p className="p-8 text-quiet">Fetching…</p>
  const frameMs = (1000 * reel.grid.denominator) / reel.grid.numerator
  return (
    <div className="flex h-screen flex-col">
      <header className="border-b border-hairline px-6 pt-3">
        <div className="flex flex-wrap items-start justify-between gap-x-6">
          <div className="min-w-0 flex-1">
            <p className="text-quiet">
              {lesson.course} · lesson {lesson.position} of {lesson.lessonsInCourse}
            </p>
            <h1 className="sr-only">{document.title || 'Lesson without a title'}</h1>
            <input
              aria-label="Title"
              value={document.title}
              placeholder="Give the lesson a title"
              maxLength={300}
              onChange={(e) => edit((d) => ({ ...d, title: e.target.value }))}
              className="-ml-1 w-full max-w-[720px] bg-transparent px-1 text-title font-bold leading-8 placeholder:text-amber hover:bg-field focus:bg-field"
            />
          </div>
          <div className="flex items-center gap-4 pt-1 text-quiet">
            <SaveState saving={saving === 'saved' && text.unkept ? 'unsaved' : saving} at={lesson.savedAt} revision={lesson.revision} changes={changes} />
            <History lessonId={id} revision={lesson.revision} restore={restore} />
            {steps.back > 0 && (
              <Button look="link" onClick={undo}>
                Undo
              </Button>
            )}
            {steps.on > 0 && (
              <Button look="link" onClick={redo}>
                Redo
              </Button>
            )}
            <span className="font-mono text-small">{document.cuts.length > 0 ? `${clock(lesson.length)} of ${clock(reel.length)}` : clock(reel.length)}</span>
          </div>
        </div>
        {saving === 'conflict' && <Conflict difference={difference} settle={settle} />}
        <nav aria-label="Stages" className="-mb-px mt-1 flex gap-6">
          {stages.map(([key, label]) => (
            <NavLink
              key={key}
              to={`/lessons/${id}/${key}`}
              className={({ isActive }) =>
                `border-b-[3px] pb-1.5 ${isActive || (key === stage) ? 'border-ink font-bold' : 'border-transparent text-quiet hover:text-ink'}`
              }
            >
              {label}
              {key === 'tidy' && suggestions.open.length > 0 && <span className="text-small text-amber"> {count(suggestions.open.length, 'suggestion')}</span>}
            </NavLink>
          ))}
        </nav>
      </header>
      <WorkContext value={{ lessonId: id, revision: lesson.revision, document, reel, frameMs, cues: text.cues, text, playback, edit }}>
        <TidyingContext value={{ stretch, setStretch, cutting, suggestions, moveIns, detail }}>
          <div className="flex min-h-0 flex-1 max-[900px]:flex-col-reverse">
            {stage === 'deliver' && !sheetShown ? (
              <Deliver lessonId={id} revision={lesson.revision} unsaved={saving !== 'saved' || text.unkept} />
            ) : (
              <LessonSheet stage={stage} selected={selected} select={select} />
            )}
            <aside
              aria-label="Beside the run sheet"
              className={`flex shrink-0 border-hairline ${besideLook} ${besides[stage === 'deliver' ? 'narrow' : 'wide']}`}
            >
              <div className="border-b border-hairline p-4 pb-2 max-[900px]:w-1/2 max-[900px]:border-b-0 max-[900px]:border-r">
                <Viewer path={moveIns.path} hard={tidying ? detail.stretches : noHard} />
              </div>
              {/* The picture stays in view while the tools under it scroll. */}
              <div className="relative min-h-0 flex-1 overflow-y-auto px-4 pb-4 [&>:first-child]:border-t-0">
                {stage === 'bring-in' && <Facts />}
                {tidying && <Tidy select={select} />}
                {stage === 'mark-up' && <MarkUp selected={selected} select={select} />}
                {stage === 'deliver' && (
                  <>
                    <p className="mt-3">
                      <Button look="link" onClick={() => showSheet((now) => !now)}>
                        {sheetShown ? 'Back to the places' : 'Show the run sheet'}
                      </Button>{' '}
                      <span className="text-small text-quiet">key R</span>
                    </p>
                    <LessonDetails />
                  </>
                )}
              </div>
            </aside>
          </div>
        </TidyingContext>
      </WorkContext>
    </div>
  )
}
