import { useEffect, useState } from 'react'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { exactClock, timeOf } from '../ui/words'

/** One edge of the selected stretch: typed, or moved by a frame or a word. */
export function Edge({
  label,
  at,
  frameMs,
  soundEdges,
  move,
}: {
  label: string
  at: number
  frameMs: number
  soundEdges: number[]
  move: (to: number) => void
}) {
  const [typed, setTyped] = useState(exactClock(at))
  const [problem, setProblem] = useState('')
  useEffect(() => {
    setTyped(exactClock(at))
    setProblem('')
  }, [at])
  const take = () => {
    const ms = timeOf(typed)
    if (ms === undefined) return setProblem('Write minutes:seconds, such as 1:05.')
    if (ms !== at) move(ms)
  }
  return (
    <div className="w-40">
      <Field
        label={label}
        value={typed}
        problem={problem}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === 'Enter' && take()}
        className="font-mono"
      />
      <p className="mt-1 flex flex-wrap gap-x-3 text-small [&>button]:py-0.5">
        <Button look="link" aria-label={`${label}: one frame earlier`} onClick={() => move(Math.round(at - frameMs))}>
          − 1 frame
        </Button>
        <Button look="link" aria-label={`${label}: one frame later`} onClick={() => move(Math.round(at + frameMs))}>
          + 1 frame
        </Button>
        {soundEdges.length > 0 && (
          <>
            <Button look="link" aria-label={`${label}: to the word before`} onClick={() => move(soundEdges.findLast((e) => e < at) ?? 0)}>
              − 1 word
            </Button>
            <Button
              look="link"
              aria-label={`${label}: to the next word`}
              onClick={() => move(soundEdges.find((e) => e > at) ?? soundEdges[soundEdges.length - 1])}
            >
              + 1 word
            </Button>
          </>
        )}
      </p>
    </div>
  )
}
