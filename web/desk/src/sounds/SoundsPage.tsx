import { useState } from 'react'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { Dialog } from '../ui/Dialog'
import { Page } from '../ui/Page'
import { Shelf } from './Shelf'
import { SoundForm } from './SoundForm'
import { type Shelved, type TakenSound, useKeeping } from './shelf'

/** The house's shelf of sounds, in the Kit. */
export function SoundsPage() {
  const { take, remove } = useKeeping()
  const [edited, edit] = useState<{ sound: Shelved['sound']; isThere: boolean }>()
  const [leaving, leave] = useState<Shelved>()
  return (
    <Page
      title="Sounds"
      about="Music and effects to lay under lessons. Those that come with Wexel are free of rights (CC0)."
      action={
        <div className="flex items-center gap-4">
          {take.isPending && <span role="status">Listening to it …</span>}
          <ChooseFile
            label="A sound of your own"
            accept="audio/*,.opus,.flac,.aiff,.aif,.m4a"
            disabled={take.isPending}
            take={(file) => take.mutate(file, { onSuccess: (taken) => edit({ sound: fresh(taken, file.name), isThere: false }) })}
          >
            Add a sound of your own
          </ChooseFile>
        </div>
      }
    >
      <div className="max-w-5xl">
        <Shelf
          act={(shelved) =>
            shelved.isShipped ? null : (
              <>
                <Button look="link" aria-label={`Change “${shelved.sound.sound.title}”`} onClick={() => edit({ sound: shelved.sound, isThere: true })}>
                  Change
                </Button>
                <Button look="link" aria-label={`Take “${shelved.sound.sound.title}” off the shelf`} onClick={() => leave(shelved)}>
                  Take off
                </Button>
              </>
            )
          }
        />
      </div>
      <Dialog open={edited !== undefined} onClose={() => edit(undefined)} title={edited?.isThere ? 'What is said of it' : 'A sound of your own'}>
        {edited && <SoundForm key={edited.sound.sound.key} sound={edited.sound} isThere={edited.isThere} done={() => edit(undefined)} />}
      </Dialog>
      <Dialog open={leaving !== undefined} onClose={() => leave(undefined)} title="Take it off the shelf">
        <p>Lessons under which “{leaving?.sound.sound.title}” lies keep it, with its licence. It cannot be laid under others any more.</p>
        <p className="mt-4">
          <Button
            onClick={() => {
              if (leaving) remove.mutate(leaving.sound.sound.key)
              leave(undefined)
            }}
          >
            Take it off
          </Button>
        </p>
      </Dialog>
    </Page>
  )
}

/** What is known of a file before anybody said anything of it. */
const fresh = ({ key, facts }: TakenSound, name: string): Shelved['sound'] => ({
  sound: {
    key,
    title: facts.title ?? name.replace(/\.[^.]+$/, '').replaceAll(/[-_]+/g, ' '),
    author: facts.author ?? '',
    licence: '',
    length: facts.length,
    channels: facts.channels,
    lufs: facts.lufs,
    truePeak: facts.truePeak,
    firstBeat: 0,
    tempo: facts.tempo ?? undefined,
    beats: 4,
  },
  use: facts.length < 10_000 ? 'effect' : 'music',
  genre: '',
  moods: [],
  words: '',
  source: '',
})
