import { useLacks } from '../lessons/useLacks'
import { useWork } from '../lessons/work'
import { Edge } from '../sheet/Edge'
import { PlacedBox } from '../sheet/PlacedBox'
import { Button } from '../ui/Button'
import { Tick } from '../ui/Lines'
import { NumberField } from '../ui/NumberField'
import { clock } from '../ui/words'
import { type Bed, heardIn, ofSounds } from './beds'
import { ChooseSound } from './ChooseSound'
import { secondsOf } from './Shelf'

interface Props {
  bed: Bed
  struck: boolean
  open: boolean
  select: (id: string | undefined) => void
}

/** A sound under the voice, where its stretch begins. */
export function SoundBox({ bed, struck, open, select }: Props) {
  const { edit, reel, playback } = useWork()
  const lacks = useLacks('sound', bed.id)
  const set = (to: Partial<Bed>) => edit((d) => ofSounds.changed(d, bed.id, to))
  return (
    <PlacedBox
      name="sound"
      id={bed.id}
      at={bed.span.start}
      terms={[
        'under the voice',
        `until ${clock(bed.span.end)}`,
        `${bed.apart} LU under it`,
        ...(bed.loops && bed.span.end - bed.span.start > bed.sound.length ? ['again and again'] : []),
      ]}
      struck={struck}
      open={open}
      select={select}
      move={(at) => set({ span: heardIn(at, at + bed.span.end - bed.span.start, reel.length) })}
      remove={() => edit((d) => ofSounds.without(d, bed.id))}
      lacks={lacks}
      more={
        <Button look="link" onClick={() => playback.hear({ start: Math.max(0, bed.span.start - 1000), end: Math.min(reel.length, bed.span.end + 1000) })}>
          Play it
        </Button>
      }
    >
      <p>
        <b>{bed.sound.title}</b>{' '}
        <span className="text-quiet">{[secondsOf(bed.sound.length), bed.sound.author && `by ${bed.sound.author}`].filter(Boolean).join(', ')}</span>
      </p>
      {open && <Settings bed={bed} set={set} />}
    </PlacedBox>
  )
}

function Settings({ bed, set }: { bed: Bed; set: (to: Partial<Bed>) => void }) {
  const { reel, frameMs } = useWork()
  const number = (label: string, value: number, least: number, most: number, take: (value: number) => void) => (
    <div className="w-36">
      <NumberField label={label} value={value} least={least} most={most} take={take} />
    </div>
  )
  return (
    <div className="flex flex-col gap-3 py-1">
      <ChooseSound words="Exchange it" choose={(sound) => set({ sound, endsAtBar: bed.endsAtBar && sound.tempo != null })} />
      <div className="flex flex-wrap items-start gap-x-4">
        <Edge
          label="Under it from"
          at={bed.span.start}
          frameMs={frameMs}
          soundEdges={[]}
          move={(to) => set({ span: heardIn(to, bed.span.end, reel.length) })}
        />
        <Edge label="Until" at={bed.span.end} frameMs={frameMs} soundEdges={[]} move={(to) => set({ span: heardIn(bed.span.start, to, reel.length) })} />
      </div>
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        {number('Under it by, LU', bed.apart, 15, 50, (apart) => set({ apart }))}
        {number('Down by, dB', bed.duck, 0, 30, (duck) => set({ duck }))}
        {number('Down within, s', bed.attack / 1000, 0.02, 5, (s) => set({ attack: Math.round(s * 1000) }))}
        {number('Up within, s', bed.release / 1000, 0.02, 5, (s) => set({ release: Math.round(s * 1000) }))}
        {number('Comes within, s', bed.fadeIn / 1000, 0, 30, (s) => set({ fadeIn: Math.round(s * 1000) }))}
        {number('Goes within, s', bed.fadeOut / 1000, 0, 30, (s) => set({ fadeOut: Math.round(s * 1000) }))}
      </div>
      <p className="text-small text-quiet">
        Where somebody speaks it lies {bed.apart} LU under the voice; where nobody does, {bed.duck} dB louder. Less than 15 LU are hard to follow, and 20 are
        what WCAG asks for.
      </p>
      <div className="flex flex-wrap gap-x-6 gap-y-1">
        <Tick label={bed.sound.tempo ? 'Again and again, on the beat' : 'Again and again'} on={bed.loops} set={(loops) => set({ loops })} />
        {bed.sound.tempo ? (
          <Tick label="It ends with a whole bar" on={bed.endsAtBar} set={(endsAtBar) => set({ endsAtBar })} />
        ) : (
          <span className="text-quiet">Where its bars are, nobody said: it ends where its stretch does.</span>
        )}
      </div>
    </div>
  )
}
