import type { UseMutationResult } from '@tanstack/react-query'
import { type ReactNode, useRef } from 'react'
import { Button } from './Button'

interface Props {
  title: string
  picture: ReactNode
  about: ReactNode
  choose: string
  take: Pick<UseMutationResult<unknown, Error, File>, 'mutate' | 'isPending' | 'error'>
  /** How to go back from a picture of one's own; not offered without. */
  drop?: { label: string; act: () => void }
  wants: string
  /** The endings of files that are offered. */
  accept?: string
}

/** A picture that can be replaced by one of the trainer's own. */
export function PictureChoice({ title, picture, about, choose, take, drop, wants, accept = '.jpg,.jpeg,.png' }: Props) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <section className="grid grid-cols-[140px_1fr] gap-4">
      {picture}
      <div className="flex flex-col gap-2">
        <h2>{title}</h2>
        <p className="text-quiet">{about}</p>
        <p className="flex flex-wrap gap-4">
          <Button look="link" onClick={() => input.current?.click()} disabled={take.isPending}>
            {take.isPending ? 'Looking at it…' : choose}
          </Button>
          {drop && (
            <Button look="link" onClick={drop.act}>
              {drop.label}
            </Button>
          )}
        </p>
        <p className="text-quiet">{wants}</p>
        {take.error && (
          <p role="alert" className="text-brick">
            {take.error.message}
          </p>
        )}
      </div>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        tabIndex={-1}
        aria-label={choose}
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) take.mutate(file)
          e.target.value = ''
        }}
      />
    </section>
  )
}
