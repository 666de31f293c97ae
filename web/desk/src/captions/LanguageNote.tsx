import { useQuery } from '@tanstack/react-query'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { languageName } from '../ui/LanguageInput'
import type { Track } from './cues'

/** Says where the captions in the sheet are in another language than the one that is set. */
export function LanguageNote({ track }: { track: Track }) {
  const { text, edit } = useWork()
  const words = text.cues.map((c) => c.text).join(' ')
  const { data: other } = useQuery({
    queryKey: ['language', track.hash, track.language],
    // What tells languages apart is large, and is fetched when it is needed.
    queryFn: async () => (await import('./language')).otherLanguage(words, track.language) ?? null,
    enabled: words.length > 0,
  })
  if (!other) return null
  return (
    <p className="pl-5 text-small text-amber">
      These captions read like {languageName(other)}, and their language is set to {languageName(track.language)}.{' '}
      <Button look="link" onClick={() => edit((d) => ({ ...d, captions: d.captions.map((t) => (t.id === track.id ? { ...t, language: other } : t)) }))}>
        Set it to {languageName(other)}
      </Button>
    </p>
  )
}
