import { useState } from 'react'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { count } from '../ui/words'
import { found, replaced } from './cues'

/** By which the line above the sheet finds it. */
export const findId = 'find-and-replace'

/** Words found in the captions that are shown, and written otherwise one by one or all at once. */
export function FindAndReplace() {
  const { text, playback } = useWork()
  const [words, setWords] = useState('')
  const [by, setBy] = useState('')
  const [whole, setWhole] = useState(true)
  const [cased, setCased] = useState(false)
  const [at, setAt] = useState(0)
  const search = { words, whole, cased }
  const places = found(text.cues, search)
  const place = places[Math.min(at, places.length - 1)]
  const go = (to: number) => {
    const next = places[(to + places.length) % places.length]
    if (!next) return
    setAt((to + places.length) % places.length)
    playback.seek(next.cue.span.start)
  }
  return (
    <details id={findId} className="mt-2 border-t border-hairline pt-2">
      <summary className="cursor-pointer">Find and replace</summary>
      <form
        className="mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          go(at + 1)
        }}
      >
        <div className="flex gap-3">
          <Field
            label="Find"
            value={words}
            onChange={(e) => {
              setWords(e.target.value)
              setAt(0)
            }}
          />
          <Field label="Write instead" value={by} onChange={(e) => setBy(e.target.value)} />
        </div>
        <div className="mt-2 flex flex-wrap gap-x-4 gap-y-2 text-small">
          <label className="flex gap-2">
            <input type="checkbox" checked={whole} onChange={(e) => setWhole(e.target.checked)} />
            Whole words
          </label>
          <label className="flex gap-2">
            <input type="checkbox" checked={cased} onChange={(e) => setCased(e.target.checked)} />
            Capitals as written
          </label>
          {words.trim() && <output className="text-quiet">{places.length === 0 ? 'Not there' : count(places.length, 'place')}</output>}
        </div>
        {places.length > 0 && (
          <>
            <p className="mt-2 text-small">
              {place.cue.text.slice(0, place.at)}
              <b>{place.cue.text.slice(place.at, place.at + place.length)}</b>
              {place.cue.text.slice(place.at + place.length)}
            </p>
            <div className="mt-1 flex flex-wrap gap-x-4 gap-y-2">
              <Button look="link" onClick={() => go(at - 1)}>
                Back
              </Button>
              <Button look="link" type="submit">
                Next
              </Button>
              <Button look="link" onClick={() => text.change(replaced(text.cues, search, by, place))}>
                Replace this one
              </Button>
              <Button look="link" onClick={() => text.change(replaced(text.cues, search, by))}>
                Replace all {places.length}
              </Button>
            </div>
          </>
        )}
      </form>
    </details>
  )
}
