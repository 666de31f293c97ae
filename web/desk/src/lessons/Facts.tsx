import { Recordings } from '../bringin/Recordings'
import { TextLink } from '../ui/TextLink'
import { count, lengthOf, size } from '../ui/words'
import { codecName } from './codecs'
import { LanguageField } from './LanguageField'
import { LookAgain } from './LookAgain'
import type { Reel } from './useLessons'
import { useWork } from './work'

type Part = Reel['parts'][number]

const containers: Record<string, string> = { mp4: 'MP4', mov: 'MOV', matroska: 'Matroska (MKV)', webm: 'WebM', avi: 'AVI', asf: 'ASF (WMV)', mpegts: 'MPEG-TS' }
const sides: Record<string, string> = {
  same: 'both sides are the same',
  leftOnly: 'only the left side carries sound',
  rightOnly: 'only the right side carries sound',
  silent: 'nothing can be heard',
}

/** What the look-through found, once it is through. */
function found({ analysis, facts, loudness }: Part): [string, string][] {
  if (!analysis || analysis.lookedUntil != null) return []
  const still = analysis.still.reduce((sum, s) => sum + s.length, 0)
  const { truePeak, range = 0 } = analysis.loudness ?? {}
  const measured = truePeak == null ? '' : ` Its true peak is ${minus(truePeak)} dBTP, its range ${range.toFixed(1)} LU.`
  const changes = analysis.scenes.length > 0 ? `; changes altogether ${count(analysis.scenes.length, 'time')}` : ''
  return [
    ...(loudness ? ([['Loudness', loudness + measured]] as [string, string][]) : []),
    ['Screen', `stands still for ${lengthOf(still)} of ${lengthOf(facts.length)}${changes}`],
  ]
}

const channelsOf = (many: number) => (many === 1 ? 'mono' : many === 2 ? 'stereo' : `${many} channels`)
const minus = (n: number) => n.toFixed(1).replace('-', '−')

/** The lesson's recordings, what learners are told of the lesson, and what was found of the recording that is shown. */
export function Facts() {
  const { lessonId, reel, document, edit, playback } = useWork()
  return (
    <>
      <Recordings lessonId={lessonId} reel={reel} document={document} edit={edit} playback={playback} />
      <LanguageField document={document} edit={edit} />
      <label className="mt-4 block text-quiet" htmlFor="description">
        Description for learners
      </label>
      <textarea
        id="description"
        rows={4}
        maxLength={4000}
        value={document.description}
        onChange={(e) => edit((d) => ({ ...d, description: e.target.value }))}
        className="mt-1 w-full border border-quiet/60 bg-field px-2 py-1.5"
      />
      <Found part={reel.parts[playback.part] ?? reel.parts[0]} />
      <section className="mt-4 border-t border-hairline pt-3">
        <h2>The lesson as a file</h2>
        <p className="mt-1 text-quiet">
          To keep a copy, or to take it to another machine: everything that is said of it, in an open format. Drop such a file anywhere to bring it in again.
        </p>
        <p className="mt-1 flex flex-wrap gap-x-4">
          <TextLink href={`/api/lessons/${lessonId}/lesson.zip`} download>
            With its recordings, as a ZIP
          </TextLink>
          <TextLink href={`/api/lessons/${lessonId}/lesson.wexel.json`} download>
            The text alone
          </TextLink>
        </p>
      </section>
    </>
  )
}

/** What the probe and the look-through found of a recording. */
function Found({ part: r }: { part: Part }) {
  const picture = r.facts.picture
  const sound = r.facts.sounds[r.facts.usedSounds?.[0] ?? 0]
  const colour = picture?.colour
  const rows: [string, string][] = [
    ['File', r.fileName],
    ['Container', containers[r.facts.container] ?? r.facts.container],
    ['Size of the file', size(r.facts.bytes)],
    ...(picture
      ? ([
          ['Picture', `${picture.shownSize.width} × ${picture.shownSize.height}, ${codecName(picture.codec)}`],
          [
            'Rate',
            picture.rateVaries
              ? `varies, ${picture.rate.perSecond.toFixed(2)} frames/s on average`
              : `${Number(picture.nominalRate.perSecond.toFixed(3))} frames/s, ${picture.fields ? 'interlaced' : 'constant'}`,
          ],
          [
            'Colour',
            [
              picture.pixelFormat,
              colour?.matrix ?? 'matrix not stated',
              colour?.fullRange == null ? 'range not stated' : colour.fullRange ? 'full range' : 'limited range',
            ].join(', '),
          ],
        ] as [string, string][])
      : []),
    [
      'Sound',
      sound
        ? [
            [codecName(sound.codec), channelsOf(sound.channels), `${(sound.sampleRate / 1000).toFixed(1)} kHz`].join(', '),
            ...(r.analysis?.sides && sides[r.analysis.sides] ? [sides[r.analysis.sides]] : []),
          ].join('; ')
        : 'none',
    ],
    ...found(r),
  ]
  return (
    <section className="mt-4 border-t border-hairline pt-3">
      <h2>What was brought in</h2>
      <dl className="mt-2 grid grid-cols-[120px_1fr] gap-y-1.5">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-quiet">{name}</dt>
            <dd className="break-words">{value}</dd>
          </div>
        ))}
      </dl>
      {r.notes.length > 0 && (
        <ul className="mt-3 list-disc pl-5 text-amber">
          {r.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
      )}
      {(r.analysisFailure || r.analysis?.lookedUntil === null) && <LookAgain hash={r.hash} failure={r.analysisFailure} />}
      {!r.analysis && !r.analysisFailure && (
        <p role="status" className="mt-3">
          Looking through it: pictures and sound appear in the sheet when that is done.
        </p>
      )}
    </section>
  )
}
