import { type ReactNode, useEffect, useState } from 'react'
import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { lineLook } from '../ui/Lines'
import { count } from '../ui/words'
import { anything, type Order, type Query, type Shelved, useListening, useShelf } from './shelf'

const orders: Record<Order, string> = { title: 'title', length: 'length, shortest first', tempo: 'tempo, slowest first', author: 'author' }
const uses: [Query['use'], string][] = [
  ['music', 'Music'],
  ['effect', 'Effects'],
]

/** The shelf of sounds: music by what is ticked, effects by words; each is listened to with one click. */
export function Shelf({ act }: { act: (sound: Shelved) => ReactNode }) {
  const [query, setQuery] = useState(anything('music'))
  const shelf = useShelf(query)
  const { playing, toggle, stop } = useListening()
  // biome-ignore lint/correctness/useExhaustiveDependencies: what plays ends when the shelf is left, and only then
  useEffect(() => stop, [])
  const set = (to: Partial<Query>) => setQuery((now) => ({ ...now, ...to }))
  const found = shelf.data
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <fieldset className="flex gap-4">
          <legend className="sr-only">What for</legend>
          {uses.map(([use, words]) => (
            <label key={use} className="flex items-center gap-2">
              <input
                type="radio"
                name="use"
                checked={query.use === use}
                onChange={() => {
                  stop()
                  setQuery(anything(use))
                }}
              />
              {words}
            </label>
          ))}
        </fieldset>
        <label className="flex flex-1 items-baseline gap-2">
          Words
          <input
            value={query.words}
            maxLength={200}
            placeholder={query.use === 'effect' ? 'bell, click, done …' : 'title, author, instrument …'}
            onChange={(e) => set({ words: e.target.value })}
            className={`${lineLook} flex-1`}
          />
        </label>
        <label className="flex items-baseline gap-2">
          Sorted by
          <select value={query.order} onChange={(e) => set({ order: e.target.value as Order })} className={lineLook}>
            {Object.entries(orders).map(([order, words]) => (
              <option key={order} value={order}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </div>
      {found && query.use === 'music' && (
        <div className="flex flex-col gap-1 border-y border-hairline py-2">
          <Boxes name="Genre" of={found.genres} ticked={query.genre} tick={(genre) => set({ genre })} />
          <Boxes name="Mood" of={found.moods} ticked={query.mood} tick={(mood) => set({ mood })} />
          <Boxes name="Length" of={found.lengths} ticked={query.length} tick={(length) => set({ length })} />
        </div>
      )}
      {shelf.error && (
        <p role="alert" className="text-brick">
          {shelf.error.message}
        </p>
      )}
      {found && (
        <>
          <p role="status" className="text-small text-quiet">
            {found.sounds.length === 0 ? 'Nothing on the shelf is like that. Untick a box, or take other words.' : count(found.sounds.length, 'sound')}
          </p>
          <ul aria-label="Sounds on the shelf" className="border-t border-hairline">
            {found.sounds.map((s) => (
              <li key={s.sound.sound.key} className="grid grid-cols-[56px_minmax(0,1fr)_auto] items-baseline gap-x-3 border-b border-hairline py-1.5">
                <Button look="link" className="min-h-6" aria-pressed={playing === s.sound.sound.key} onClick={() => toggle(s.sound.sound.key)}>
                  {playing === s.sound.sound.key ? 'Stop' : 'Listen'}
                  <span className="sr-only"> to “{s.sound.sound.title}”</span>
                </Button>
                <span className="min-w-0">
                  <b>{s.sound.sound.title}</b> <span className="text-quiet">{termsOf(s).join(' · ')}</span>
                </span>
                <span className="flex gap-4 [&>button]:min-h-6">{act(s)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  )
}

/** What is known of a sound, in a few words. */
export const termsOf = ({ sound, licence, isShipped }: Shelved) =>
  [
    sound.genre,
    sound.moods.join(', ').toLowerCase(),
    secondsOf(sound.sound.length),
    sound.sound.tempo && `${Math.round(sound.sound.tempo)} beats a minute`,
    ...(isShipped ? ['comes with Wexel'] : [sound.sound.author, licence]),
  ].filter(Boolean)

export const secondsOf = (ms: number) => (ms < 10_000 ? `${(ms / 1000).toFixed(1)} s` : ms < 60_000 ? `${Math.round(ms / 1000)} s` : minutesOf(ms))

const minutesOf = (ms: number) => `${Math.floor(ms / 60_000)} min ${Math.round((ms % 60_000) / 1000)} s`

interface BoxesProps {
  name: string
  of: Schemas['ShelfChoice'][]
  ticked: string[]
  tick: (codes: string[]) => void
}

function Boxes({ name, of, ticked, tick }: BoxesProps) {
  if (of.length === 0) return null
  return (
    <fieldset className="grid grid-cols-[56px_1fr] gap-x-3">
      <legend className="sr-only">{name}</legend>
      <span aria-hidden="true" className="text-quiet">
        {name}
      </span>
      <span className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        {of.map((choice) => {
          const on = ticked.includes(choice.code)
          return (
            <label key={choice.code} className="flex items-center gap-1.5">
              <input type="checkbox" checked={on} onChange={() => tick(on ? ticked.filter((t) => t !== choice.code) : [...ticked, choice.code])} />
              {choice.name} <span className="text-small text-quiet">{choice.count}</span>
            </label>
          )
        })}
      </span>
    </fieldset>
  )
}
