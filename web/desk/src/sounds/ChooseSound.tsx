import { useState } from 'react'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { TextLink } from '../ui/TextLink'
import { Shelf } from './Shelf'
import type { ShelfSound } from './shelf'

interface Props {
  /** What stands on the button. */
  words: string
  choose: (sound: ShelfSound, isEffect: boolean) => void
}

/** A button that lets a sound of the shelf be chosen. */
export function ChooseSound({ words, choose }: Props) {
  const [open, setOpen] = useState(false)
  return (
    <p>
      <Button look="link" className="min-h-6" onClick={() => setOpen(true)}>
        {words}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title="A sound from the shelf">
        <Shelf
          act={({ sound }) => (
            <Button
              look="link"
              aria-label={`Take “${sound.sound.title}”`}
              onClick={() => {
                choose(sound.sound, sound.use === 'effect')
                setOpen(false)
              }}
            >
              Take it
            </Button>
          )}
        />
        <p className="mt-3 text-quiet">
          Sounds of your own are added in the <TextLink to="/kit/sounds">Kit</TextLink>, with their licence.
        </p>
      </Dialog>
    </p>
  )
}
