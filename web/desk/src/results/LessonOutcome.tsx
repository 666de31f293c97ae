import { Link, useParams, useSearchParams } from 'react-router'
import { useLessons } from '../lessons/useLessons'
import { Page, Waiting } from '../ui/Page'
import { linkLook } from '../ui/TextLink'
import { clock, count } from '../ui/words'
import { Figures } from '../videos/Figures'
import { Learners } from './Learners'
import { leavingOf, type Place, placesOf } from './pulse'
import { QuestionResults } from './QuestionResults'
import { SurveyAnswers } from './SurveyAnswers'
import { type Among, type AmongChoices, useAmong, usePulse, useResults } from './useResults'

const refreshMs = 10_000

/** What came of one lesson: who took it, where they left, what each question did, and what they said of it. */
export function LessonOutcome() {
  const { id = '' } = useParams()
  const [params, setParams] = useSearchParams()
  const among: Among = { outlet: params.get('outlet') ?? undefined, group: params.get('group') ?? undefined }
  const results = useResults(id, among, refreshMs)
  const choices = useAmong(id).data
  const title = useLessons()
    .data?.flatMap((c) => c.lessons)
    .find((l) => l.id === id)?.title
  const choose = (name: keyof Among, value: string) =>
    setParams(
      (now) => {
        if (value) now.set(name, value)
        else now.delete(name)
        return now
      },
      { replace: true },
    )
  return (
    <Page
      title={title ?? 'Results'}
      about={
        <>
          <Link to="/results" className={linkLook}>
            All results
          </Link>
          <Link to={`/lessons/${id}/mark-up`} className={`${linkLook} ml-4`}>
            Its run sheet
          </Link>
        </>
      }
    >
      <Waiting query={results}>
        {results.data && (
          <>
            {choices && <Choices choices={choices} among={among} choose={choose} />}
            <p className="my-3 text-large">
              <b>{count(results.data.all, 'learner')}</b>, {results.data.completed} complete
            </p>
            <Places id={id} among={among} />
            <QuestionResults lessonId={id} title={title ?? ''} results={results.data} />
            <SurveyAnswers lessonId={id} among={among} />
            <Figures lessonId={id} />
            <Learners results={results.data} file={`/api/lessons/${id}/results.csv?${params}`} />
          </>
        )}
      </Waiting>
    </Page>
  )
}

function Choices({ choices, among, choose }: { choices: AmongChoices; among: Among; choose: (name: keyof Among, value: string) => void }) {
  const one = (name: keyof Among, label: string, all: string, of: AmongChoices['groups']) =>
    of.length > 0 && (
      <label className="flex items-baseline gap-2">
        {label}
        <select value={among[name] ?? ''} onChange={(e) => choose(name, e.target.value)} className="border border-quiet/60 bg-field px-2 py-1">
          <option value="">{all}</option>
          {of.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name} ({c.learners})
            </option>
          ))}
        </select>
      </label>
    )
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-2">
      {one('outlet', 'Taken at', 'all places', choices.outlets)}
      {one('group', 'By', 'everybody', choices.groups)}
    </div>
  )
}

/** Where most leave and most watch again; all of it stands in the run sheet. */
function Places({ id, among }: { id: string; among: Among }) {
  const pulse = usePulse(id, among).data
  if (!pulse || pulse.learners === 0) return null
  const last = pulse.steps.at(-1)?.at ?? 0
  const line = (words: string, none: string, places: Place[]) => (
    <p>
      {places.length === 0
        ? none
        : [
            `${words} `,
            ...places.flatMap((p, i) => [
              i > 0 ? ', ' : '',
              <Link key={p.at} to={`/lessons/${id}/mark-up?at=${p.at}`} className={`${linkLook} font-mono`}>
                {clock(p.at)}
              </Link>,
              ` (${p.count})`,
            ]),
          ]}
    </p>
  )
  return (
    <section aria-label="Where they leave and watch again" className="mb-4">
      {line('Most leave at', 'There is no place at which several leave.', leavingOf(pulse, last + 1))}
      {line(
        'Most watch again from',
        'There is no place that several watch again.',
        placesOf(pulse.steps, (s) => s.again),
      )}
      <p className="text-small text-quiet">
        All of it is the band down the run sheet: as wide as many saw it, dark where they watched again, a notch where somebody left.
      </p>
    </section>
  )
}
