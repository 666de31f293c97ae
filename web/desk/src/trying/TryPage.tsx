import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { api, type Schemas, taken } from '../app/api'
import { useKey } from '../app/keys'
import { SlidingEdge } from '../check/SlidingEdge'
import { usePictures } from '../check/usePictures'
import { useProfiles } from '../profiles/settings'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { clock, exactClock, lengthOf, size, timeOf } from '../ui/words'

type Trials = Schemas['TrialsView']
type Trial = Schemas['TrialView']

/** Two profiles on the same few seconds of a lesson: what each comes to, and both pictures under one sliding edge. */
export function TryPage() {
  const { id = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const profiles = useProfiles()
  const at = search.get('at')
  const [left, right] = [search.get('left') ?? 'web', search.get('right') ?? 'small-480p']
  const trials = useQuery({
    queryKey: ['trials', id, left, right, at],
    queryFn: ({ signal }) =>
      taken(api.POST('/api/lessons/{id}/trials', { params: { path: { id } }, body: { profiles: [left, right], at: at === null ? null : Number(at) }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  })
  const set = (change: Record<string, string | null>) =>
    setSearch(
      (now) => {
        for (const [name, value] of Object.entries(change)) value === null ? now.delete(name) : now.set(name, value)
        return now
      },
      { replace: true },
    )
  const choice = (side: 'left' | 'right', value: string) => (
    <label className="flex flex-col gap-1">
      <span className="text-quiet">{side === 'left' ? 'Left' : 'Right'}</span>
      <select className="border border-quiet/60 bg-field px-2 py-1.5" value={value} onChange={(e) => set({ [side]: e.target.value })}>
        {profiles.data
          ?.filter((p) => p.profile.picture)
          .map(({ profile }) => (
            <option key={profile.id} value={profile.id}>
              {profile.title}
            </option>
          ))}
      </select>
    </label>
  )
  return (
    <Page
      title={trials.data ? `${trials.data.lessonTitle}: two profiles` : 'Two profiles'}
      about={
        <>
          <TextLink to={`/lessons/${id}/deliver`}>Deliver</TextLink> · the same few seconds, really encoded
        </>
      }
    >
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        {choice('left', left)}
        {choice('right', right)}
        <Moment key={at} from={trials.data?.from} chosen={at !== null} take={(ms) => set({ at: ms === null ? null : String(ms) })} />
      </div>
      {trials.isFetching && (
        <p role="status" className="mt-3 text-quiet">
          Encoding the seconds with both profiles…
        </p>
      )}
      <div className="mt-3">
        <Waiting query={trials}>{trials.data && <Tried trials={trials.data} />}</Waiting>
      </div>
    </Page>
  )
}

function Moment({ from, chosen, take }: { from?: number; chosen: boolean; take: (ms: number | null) => void }) {
  const [typed, type] = useState(from === undefined ? '' : clock(from))
  const ms = timeOf(typed)
  return (
    <form
      className="flex items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        if (ms !== undefined) take(ms)
      }}
    >
      <Field
        label="Moment"
        className="max-w-[100px] font-mono"
        placeholder={from === undefined ? '0:00' : clock(from)}
        value={typed}
        onChange={(e) => type(e.target.value)}
        problem={typed && ms === undefined ? 'Minutes and seconds, such as 1:05.' : undefined}
      />
      {ms !== undefined && (
        <Button type="submit" look="link">
          Take this moment
        </Button>
      )}
      {chosen && (
        <Button look="link" onClick={() => take(null)}>
          Where most moves
        </Button>
      )}
    </form>
  )
}

function Tried({ trials }: { trials: Trials }) {
  const [a, b] = trials.trials as [Trial, Trial]
  const [frame, setFrame] = useState(a.worstFrame)
  const within = (to: number) => setFrame(Math.min(trials.frames - 1, Math.max(0, to)))
  useKey('shift+ArrowLeft', () => within(frame - 1))
  useKey('shift+ArrowRight', () => within(frame + 1))
  const perSecond = trials.grid.numerator / trials.grid.denominator
  const { shown, problem, waiting } = usePictures(`/api/trials/${a.key}/${frame}.png`, `/api/trials/${b.key}/${frame}.png`)
  const larger = a.size.width >= b.size.width ? a.size : b.size
  return (
    <>
      <table className="w-full max-w-[1100px] border-t border-hairline">
        <thead>
          <tr className="text-left text-quiet [&>th]:pr-5">
            <th className="py-1 font-normal">Profile</th>
            <th className="font-normal">Picture</th>
            <th className="font-normal">{lengthOf((trials.frames * 1000) / perSecond)} of it</th>
            <th className="font-normal">A minute like this</th>
            <th className="font-normal">Like the source, SSIM</th>
            <th className="font-normal">Took</th>
          </tr>
        </thead>
        <tbody>
          {[a, b].map((t, i) => (
            <tr key={t.profileId + String(i)} className="border-t border-hairline [&>td]:pr-5">
              <td className="py-1">
                <b>{t.profileTitle}</b>
              </td>
              <td className="font-mono text-small">
                {t.size.width} × {t.size.height} · {t.coding}
              </td>
              <td className="font-mono text-small">{size(t.bytes)}</td>
              <td className="font-mono text-small">{size(t.bytesAMinute)}</td>
              <td className="font-mono text-small">
                {t.meanSsim.toFixed(4)} on average,{' '}
                <Button look="link" aria-label={`Worst frame of ${t.profileTitle}`} onClick={() => setFrame(t.worstFrame)}>
                  {t.worstSsim.toFixed(4)} at worst
                </Button>
              </td>
              <td className="font-mono text-small">{lengthOf(t.took)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex items-center gap-3">
        <span className="text-quiet">Frame</span>
        <input
          aria-label="Frame"
          type="range"
          min={0}
          max={trials.frames - 1}
          value={frame}
          onChange={(e) => within(Number(e.target.value))}
          aria-valuetext={exactClock(trials.from + (frame * 1000) / perSecond)}
          className="max-w-[420px] flex-1 accent-copper"
        />
        <span className="font-mono">{exactClock(trials.from + (frame * 1000) / perSecond)}</span>
        <Button look="link" onClick={() => within(frame - 1)}>
          One frame back
        </Button>
        <Button look="link" onClick={() => within(frame + 1)}>
          One frame on
        </Button>
      </div>
      <p role="status" className={problem ? 'text-brick' : 'text-quiet'}>
        {problem ||
          (waiting
            ? 'Taking the pictures…'
            : a.size.width === b.size.width
              ? 'At 100 % of the pixels. Drag the edge.'
              : 'At 100 % of the larger one; the smaller is scaled up, as a page does. Drag the edge.')}
      </p>
      {shown && (
        <SlidingEdge left={shown.left} right={shown.right} leftName={a.profileTitle} rightName={b.profileTitle} width={larger.width} height={larger.height} />
      )}
    </>
  )
}
