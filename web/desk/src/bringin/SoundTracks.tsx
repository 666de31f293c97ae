import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { api, taken } from '../app/api'
import { codecName } from '../lessons/codecs'
import type { Reel } from '../lessons/useLessons'
import { Button } from '../ui/Button'

/** Which of a recording's sound tracks are heard: microphone and system often lie apart. What is chosen holds wherever the recording is used. */
export function SoundTracks({ part }: { part: Reel['parts'][number] }) {
  const { hash, facts } = part
  const used = facts.usedSounds ?? [0]
  const [picked, pick] = useState<readonly number[]>()
  const use = useMutation({
    mutationFn: (tracks: number[]) => taken(api.PUT('/api/recordings/{hash}/sounds', { params: { path: { hash } }, body: { tracks } })),
    onSuccess: () => pick(undefined),
  })
  const shown = picked ?? used
  const differs = picked !== undefined && picked.join() !== used.join()
  return (
    <fieldset className="mt-1">
      <legend className="text-small text-quiet">Sound tracks that are heard</legend>
      {facts.sounds.map((sound, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a track is its place
        <label key={i} className="flex items-center gap-2 py-0.5">
          <input
            type="checkbox"
            checked={shown.includes(i)}
            onChange={(e) => pick(facts.sounds.map((_, n) => n).filter((n) => (n === i ? e.target.checked : shown.includes(n))))}
          />
          Track {i + 1}
          <span className="text-small text-quiet">
            {codecName(sound.codec)}, {sound.channels === 1 ? 'mono' : sound.channels === 2 ? 'stereo' : `${sound.channels} channels`}
          </span>
        </label>
      ))}
      {differs && (
        <p className="mt-1 flex items-center gap-3">
          <Button disabled={shown.length === 0 || use.isPending} onClick={() => use.mutate([...shown])}>
            {shown.length > 1 ? 'Hear these together' : 'Hear this one'}
          </Button>
          <Button look="link" onClick={() => pick(undefined)}>
            Leave it as it is
          </Button>
        </p>
      )}
      {use.error && (
        <p role="alert" className="text-brick">
          {use.error.message}
        </p>
      )}
    </fieldset>
  )
}
