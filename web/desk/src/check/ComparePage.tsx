import { useQuery } from '@tanstack/react-query'
import { useParams, useSearchParams } from 'react-router'
import { api, type Schemas, taken } from '../app/api'
import { useKey } from '../app/keys'
import { Button } from '../ui/Button'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { exactClock } from '../ui/words'
import { SlidingEdge } from './SlidingEdge'
import { usePictures } from './usePictures'

type View = Schemas['CompareView']

/** A finished file and its source at the same moment, under one sliding edge. */
export function ComparePage() {
  const { id = '' } = useParams()
  const view = useQuery({
    queryKey: ['compare', id],
    queryFn: () => taken(api.GET('/api/renditions/{id}/compare', { params: { path: { id } } })),
    staleTime: Number.POSITIVE_INFINITY,
  })
  return <Waiting query={view}>{view.data && <Compared id={id} view={view.data} />}</Waiting>
}

function Compared({ id, view }: { id: string; view: View }) {
  const [search, setSearch] = useSearchParams()
  const perSecond = view.grid.numerator / view.grid.denominator
  const within = (frame: number) => Math.min(view.frames - 1, Math.max(0, frame))
  const at = search.get('at')
  const frame = within(at === null ? Math.floor(view.frames / 10) : Math.round((Number(at) / 1000) * perSecond))
  const go = (to: number) => setSearch({ at: String(Math.round((within(to) * 1000) / perSecond)) }, { replace: true })
  useKey('ArrowLeft', () => go(frame - Math.round(5 * perSecond)))
  useKey('ArrowRight', () => go(frame + Math.round(5 * perSecond)))
  useKey('shift+ArrowLeft', () => go(frame - 1))
  useKey('shift+ArrowRight', () => go(frame + 1))
  return (
    <Page
      title={`${view.lessonTitle}: source and file`}
      about={
        <>
          <TextLink to={`/lessons/${view.lessonId}/deliver`}>Deliver</TextLink> · {view.profileTitle} · {view.size.width} × {view.size.height} at 100 %
        </>
      }
      action={
        <span className="flex flex-wrap items-center gap-4">
          <Button look="link" onClick={() => go(frame - 1)}>
            One frame back
          </Button>
          <span className="font-mono">{exactClock((frame * 1000) / perSecond)}</span>
          <Button look="link" onClick={() => go(frame + 1)}>
            One frame on
          </Button>
        </span>
      }
    >
      <label className="flex items-center gap-3">
        <span className="text-quiet">Moment</span>
        <input
          type="range"
          min={0}
          max={view.frames - 1}
          value={frame}
          onChange={(e) => go(Number(e.target.value))}
          aria-valuetext={exactClock((frame * 1000) / perSecond)}
          className="flex-1 accent-copper"
        />
      </label>
      <Worst view={view} frame={frame} go={go} />
      <Pictures id={id} frame={frame} view={view} />
    </Page>
  )
}

function Worst({ view, frame, go }: { view: View; frame: number; go: (frame: number) => void }) {
  if (view.worst.length === 0) return null
  return (
    <p className="mt-1 flex flex-wrap gap-x-4">
      <span className="text-quiet">Worst</span>
      {view.worst.map((w) => (
        <Button key={w.fact} look="link" aria-pressed={w.frame === frame} onClick={() => go(w.frame)}>
          {w.fact}: {w.measured}
        </Button>
      ))}
    </p>
  )
}

function Pictures({ id, frame, view }: { id: string; frame: number; view: View }) {
  const base = `/api/renditions/${id}/compare/${frame}`
  const { shown, problem, waiting } = usePictures(`${base}/source.png`, `${base}/made.png`)
  return (
    <div className="mt-3">
      <p role="status" className={problem ? 'text-brick' : 'text-quiet'}>
        {problem || (waiting ? 'Taking the pictures…' : 'Drag the edge, or move it with the arrow keys while it has the focus.')}
      </p>
      {shown && <SlidingEdge left={shown.left} right={shown.right} leftName="source" rightName="file" width={view.size.width} height={view.size.height} />}
    </div>
  )
}
