import { useKey } from '../app/keys'
import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { clock, count, lengthOf } from '../ui/words'
import { inWords } from './SuggestionBox'
import { SuggestionSettings } from './SuggestionSettings'
import type { Suggestions } from './useSuggestions'

/** All cuts that are suggested: taken at once, one by one, or left. */
export function SuggestedCuts({ suggestions, playback }: { suggestions: Suggestions; playback: Playback }) {
  const { data, open, suggesting, take } = suggestions
  // Where something is shown without a word, a cut takes more than silence: such are never taken with the rest.
  const plain = open.filter((s) => !s.screenChanges)
  const next = open.find((s) => s.range.end > playback.now()) ?? open[0]
  useKey('t', () => next && suggesting.take(next))
  useKey('l', () => next && suggesting.leave(next))
  useKey('h', () => next && suggesting.hear(next))
  if (!data) return null
  const left = data.suggesting.left.length
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Suggested cuts">
      <h2>
        Suggested cuts{' '}
        <span className="font-normal text-quiet">· {open.length === 0 ? (data.waiting ? 'not yet' : 'none') : count(open.length, 'stretch', 'stretches')}</span>
      </h2>
      {data.waiting && <p className="mt-1 text-quiet">They come when the recording is looked through.</p>}
      {!data.waiting && !data.carriesSound && <p className="mt-1 text-quiet">Nothing can be heard in this recording, so they go by what is seen alone.</p>}
      {open.length > 0 && (
        <>
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
            {plain.length > 0 && (
              <Button onClick={() => take(plain)}>
                Take {plain.length === open.length ? 'all' : plain.length}, {lengthOf(plain.reduce((sum, s) => sum + s.range.length, 0))}
              </Button>
            )}
            {plain.length < open.length && (
              <span className="text-quiet">{count(open.length - plain.length, 'other')}: the screen changes there, look first.</span>
            )}
          </div>
          <ul className="mt-2 max-h-[280px] overflow-y-auto">
            {open.map((s) => (
              <li key={s.range.start} className="flex items-baseline gap-3 py-0.5">
                <button type="button" className="font-mono text-small hover:text-copper" onClick={() => playback.seek(s.range.start)}>
                  {clock(s.range.start)}
                </button>
                <span className="min-w-0 flex-1">
                  {inWords(s)}
                  {s.screenChanges && <span className="text-quiet"> · the screen changes in it</span>}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {left > 0 && (
        <p className="mt-1 text-quiet">
          {count(left, 'suggestion')} left.{' '}
          <Button look="link" onClick={suggestions.offerAgain}>
            Offer them again
          </Button>
        </p>
      )}
      {!data.waiting && <SuggestionSettings data={data} settle={suggestions.settle} />}
    </section>
  )
}
