import { type KeyboardEvent, useEffect, useLayoutEffect, useRef, useState } from 'react'
import { useWork } from '../lessons/work'
import { exactClock } from '../ui/words'
import { type Changes, type Cue, join, lineLength, moved, perSecond, split, stepTo, withText } from './cues'
import { typingHold } from './typing'

interface Props {
  cue: Cue
  /** Where the cursor is to stand. */
  cursor: 'start' | 'end' | number
}

const savedAfterMs = 1500

/** A caption that is being corrected, where it stands in the sheet: typed in like text, all else by keys. */
export function CueEditor({ cue, cursor }: Props) {
  const { text: work, playback, reel, frameMs } = useWork()
  const { open, leave, cursorWas } = work
  const [typed, setTyped] = useState(cue.text)
  const field = useRef<HTMLTextAreaElement>(null)
  const timer = useRef<number>(undefined)
  const [hold] = useState(() =>
    typingHold({
      playing: () => Boolean(playback.video.current && !playback.video.current.paused),
      pause: () => playback.video.current?.pause(),
      play: () => void playback.video.current?.play().catch(() => undefined),
    }),
  )
  const latest = useRef({ cue, typed, change: work.change })
  latest.current = { cue, typed, change: work.change }
  const asTyped = () => withText(latest.current.cue, latest.current.typed)
  const keep = () => {
    window.clearTimeout(timer.current)
    const { cue, typed, change } = latest.current
    if (typed !== cue.text) change(typed.trim() ? { set: [withText(cue, typed)], removed: [] } : { set: [], removed: [cue.id] })
  }
  const kept = useRef(keep)
  kept.current = keep
  useEffect(
    () => () => {
      kept.current()
      hold.end()
    },
    [hold],
  )
  const isTyped = typed !== cue.text
  const { typing } = work
  useEffect(() => {
    typing(isTyped ? () => kept.current() : undefined)
    return () => typing(undefined)
  }, [isTyped, typing])
  // What somebody undoes, or corrects elsewhere, shows here too.
  useEffect(() => setTyped(cue.text), [cue.text])
  useLayoutEffect(() => {
    const area = field.current
    if (!area) return
    area.focus({ preventScroll: true })
    // Where the sheet is laid out anew meanwhile, the cursor stays where it was.
    const was = cursorWas.current?.id === latest.current.cue.id ? cursorWas.current.at : undefined
    const at = was ?? (cursor === 'start' ? 0 : cursor === 'end' ? area.value.length : cursor)
    area.setSelectionRange(at, at)
    area.closest('[data-cue]')?.scrollIntoView({ block: 'nearest' })
  }, [cursor, cursorWas])

  const index = work.cues.findIndex((c) => c.id === cue.id)
  const [before, after] = [work.cues[index - 1], work.cues[index + 1]]
  const edges = reel.soundEdges
  const move = (edge: 'start' | 'end', to: number | undefined) => {
    if (to === undefined) return
    const now = moved(asTyped(), edge, to, reel.length)
    take({ set: [now], removed: [] })
    playback.seek(now.span[edge])
  }
  /** What was typed is in what is made of it: it is not kept once more when the field goes. */
  const take = (made: Changes) => {
    window.clearTimeout(timer.current)
    latest.current = { ...latest.current, cue: made.set[0], typed: made.set[0].text }
    setTyped(made.set[0].text)
    work.change(made)
  }
  const part = () => {
    const made = split(asTyped(), field.current?.selectionStart ?? 0, crypto.randomUUID(), edges)
    if (!made) return
    take(made)
    open(made.set[1].id, 'start')
  }
  const joinNext = () => {
    if (!after) return
    const made = join(asTyped(), after)
    take(made)
  }
  const go = (to: Cue | undefined, at: 'start' | 'end') => {
    if (!to) return
    keep()
    open(to.id, at)
    playback.seek(to.span.start)
  }
  const pressed = (event: KeyboardEvent) => {
    const held = [(event.ctrlKey || event.metaKey) && 'ctrl+', event.altKey && 'alt+', event.shiftKey && 'shift+'].filter(Boolean).join('')
    const key = held + (event.key === ' ' ? 'space' : event.key.length === 1 ? event.key.toLowerCase() : event.key)
    const edge = event.ctrlKey ? 'end' : 'start'
    const at = cue.span[edge]
    const bare = key.replace('ctrl+', '')
    const actions: Record<string, () => void> = {
      Enter: part,
      Escape: leave,
      'ctrl+j': joinNext,
      'alt+ArrowDown': () => go(after, 'start'),
      'alt+ArrowUp': () => go(before, 'start'),
      'alt+space': () => playback.hear(cue.span),
      'ctrl+space': playback.toggle,
    }
    const moves: Record<string, () => void> = {
      'alt+ArrowLeft': () => move(edge, at - frameMs),
      'alt+ArrowRight': () => move(edge, at + frameMs),
      'alt+shift+ArrowLeft': () => move(edge, stepTo(edges, at, -1)),
      'alt+shift+ArrowRight': () => move(edge, stepTo(edges, at, 1)),
      'alt+h': () => move(edge, playback.now()),
    }
    const action = actions[key] ?? moves[bare]
    if (!action) return
    event.preventDefault()
    action()
  }
  const now = asTyped()
  const longest = Math.max(...typed.split('\n').map((l) => l.length))
  const speed = Math.round(perSecond(now))
  return (
    <div data-cue={cue.id} data-beside className="my-1 border border-copper bg-paper p-2">
      <textarea
        ref={field}
        aria-label={`Caption at ${exactClock(cue.span.start)}`}
        aria-describedby="cue-keys"
        value={typed}
        rows={Math.max(1, typed.split('\n').length)}
        spellCheck
        onChange={(e) => {
          setTyped(e.target.value)
          hold.typed()
          window.clearTimeout(timer.current)
          timer.current = window.setTimeout(() => kept.current(), savedAfterMs)
        }}
        onKeyDown={pressed}
        onSelect={(e) => {
          cursorWas.current = { id: cue.id, at: e.currentTarget.selectionStart }
        }}
        className="block w-full resize-none bg-transparent focus:outline-none"
      />
      <p id="cue-keys" className="mt-1 text-small text-quiet">
        <span className={longest > lineLength ? 'text-amber' : ''}>{longest} characters a line</span> ·{' '}
        <span className={speed > 20 ? 'text-amber' : ''}>{speed} a second</span> · {exactClock(cue.span.start)} to {exactClock(cue.span.end)} · Enter splits
        here, Shift+Enter breaks the line, Ctrl+J joins, Alt+↓ next, Alt+Space plays it
      </p>
    </div>
  )
}
