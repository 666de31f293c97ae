import { useState } from 'react'
import { useDetailForm } from '../details/details'
import { LicenceInput } from '../details/LicenceInput'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { numberOf } from '../ui/number'
import { secondsOf } from './Shelf'
import { anything, type Shelved, useKeeping, useShelf } from './shelf'

interface Props {
  sound: Shelved['sound']
  /** Whether it stands on the shelf already. */
  isThere: boolean
  done: () => void
}

/** What is said of a sound of one's own: what it is called, who made it, under which licence, and by what it is found. */
export function SoundForm({ sound: given, isThere, done }: Props) {
  const [sound, setSound] = useState(given)
  const [tempo, setTempo] = useState(String(given.sound.tempo ?? ''))
  const [first, setFirst] = useState(given.sound.firstBeat > 0 ? String(given.sound.firstBeat / 1000) : '')
  const { put } = useKeeping()
  const shelf = useShelf(anything('music')).data
  const licence = useDetailForm().data?.fields.find((f) => f.code === 'licence')
  const said = (to: Partial<Shelved['sound']>) => setSound((now) => ({ ...now, ...to }))
  const facts = (to: Partial<Shelved['sound']['sound']>) => setSound((now) => ({ ...now, sound: { ...now.sound, ...to } }))
  const problem = put.error as (Error & { field?: string }) | null
  const at = (field: string) => (problem?.field === field ? problem.message : undefined)
  const tempoNumber = numberOf(tempo)
  const firstNumber = numberOf(first)
  const wrongTempo = tempo.trim() !== '' && !(tempoNumber >= 20 && tempoNumber <= 400) ? 'Between 20 and 400, or nothing.' : undefined
  const wrongFirst = first.trim() !== '' && !(firstNumber >= 0 && firstNumber * 1000 < sound.sound.length) ? 'Within the sound, or nothing.' : undefined
  const save = () =>
    put.mutate(
      {
        ...sound,
        sound: { ...sound.sound, tempo: tempo.trim() ? tempoNumber : undefined, firstBeat: first.trim() ? Math.round(firstNumber * 1000) : 0 },
      },
      { onSuccess: done },
    )
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (!wrongTempo && !wrongFirst) save()
      }}
    >
      <p className="text-quiet">
        {secondsOf(sound.sound.length)}, {sound.sound.channels === 1 ? 'one channel' : 'two channels'}, {sound.sound.lufs.toFixed(1).replace('-', '−')} LUFS
      </p>
      <Field label="Title" value={sound.sound.title} maxLength={300} problem={at('title')} onChange={(e) => facts({ title: e.target.value })} />
      <Field label="Who made it" value={sound.sound.author} maxLength={300} problem={at('author')} onChange={(e) => facts({ author: e.target.value })} />
      <div className="flex flex-col gap-1">
        <span className="text-quiet">Licence</span>
        {licence && <LicenceInput field={licence} value={sound.sound.licence} take={(to) => facts({ licence: to ?? '' })} />}
        {at('licence') && <p className="text-brick">{at('licence')}</p>}
        <p className="text-small text-quiet">Where it asks for the author’s name, that goes into the description of each lesson by itself.</p>
      </div>
      <Field label="Where it comes from" value={sound.source} maxLength={300} placeholder="https://" onChange={(e) => said({ source: e.target.value })} />
      <fieldset className="flex gap-5">
        <legend className="mb-1 text-quiet">It is</legend>
        {(['music', 'effect'] as const).map((use) => (
          <label key={use} className="flex items-center gap-2">
            <input type="radio" name="is" checked={sound.use === use} onChange={() => said({ use })} />
            {use === 'music' ? 'music' : 'an effect'}
          </label>
        ))}
      </fieldset>
      {sound.use === 'music' && (
        <div className="grid grid-cols-2 gap-3">
          <Field label="Genre" value={sound.genre} maxLength={40} list="genres" onChange={(e) => said({ genre: e.target.value })} />
          <datalist id="genres">
            {shelf?.usualGenres.map((g) => (
              <option key={g} value={g} />
            ))}
          </datalist>
          <Field
            label="Moods, with commas"
            defaultValue={sound.moods.join(', ')}
            placeholder={shelf?.usualMoods.slice(0, 3).join(', ')}
            onChange={(e) => said({ moods: e.target.value.split(',').map((m) => m.trim()) })}
          />
          <Field label="Beats a minute, where you know" value={tempo} problem={wrongTempo} inputMode="decimal" onChange={(e) => setTempo(e.target.value)} />
          <Field
            label="Beats a bar"
            type="number"
            min={1}
            max={16}
            value={sound.sound.beats}
            onChange={(e) => facts({ beats: Math.min(16, Math.max(1, Number(e.target.value) || 4)) })}
          />
          <Field
            label="The first bar begins at, s"
            value={first}
            problem={wrongFirst ?? at('firstBeat')}
            inputMode="decimal"
            onChange={(e) => setFirst(e.target.value)}
          />
        </div>
      )}
      <Field label="Other words by which it is found" value={sound.words} maxLength={300} onChange={(e) => said({ words: e.target.value })} />
      {problem && !['title', 'author', 'licence', 'firstBeat'].includes(problem.field ?? '') && (
        <p role="alert" className="text-brick">
          {problem.message}
        </p>
      )}
      <p className="flex gap-4">
        <Button type="submit" disabled={put.isPending}>
          {isThere ? 'Keep it so' : 'Put it on the shelf'}
        </Button>
        <Button look="link" onClick={done}>
          {isThere ? 'Leave it as it was' : 'Do not keep it'}
        </Button>
      </p>
    </form>
  )
}
