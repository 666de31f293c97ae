import type { UseMutationResult } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Button } from './Button'
import { ChooseFile } from './ChooseFile'

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
  return (
    <section className="grid grid-cols-[140px_1fr] gap-4">
      {picture}
      <div className="flex flex-col gap-2">
        <h2>{title}</h2>
        <p className="text-quiet">{about}</p>
        <p className="flex flex-wrap gap-4">
          <ChooseFile label={choose} accept={accept} take={take.mutate} disabled={take.isPending}>
            {take.isPending ? 'Looking at it…' : choose}
          </ChooseFile>
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
    </section>
  )
}
