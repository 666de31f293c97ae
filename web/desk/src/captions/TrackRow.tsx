import { useMe } from '../app/useMe'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { languageName } from '../ui/LanguageInput'
import { Mark, type MarkKind } from '../ui/Mark'
import { linkLook } from '../ui/TextLink'
import { count, date } from '../ui/words'
import type { Track } from './cues'
import { LanguageNote } from './LanguageNote'

const marks: Record<Track['state'], MarkKind> = { draft: 'behind', corrected: 'live', checked: 'live' }

function stateOf(track: Track): string {
  const what = track.kind === 'machineDraft' ? 'draft by this machine' : track.kind === 'translation' ? 'translation' : ''
  const how = {
    draft: track.kind === 'machineDraft' ? '' : 'draft',
    corrected: 'corrected',
    checked: `checked${track.checkedBy ? ` by ${track.checkedBy}` : ''}${track.checkedAt ? `, ${date(track.checkedAt)}` : ''}`,
  }[track.state]
  const out = track.state === 'draft' ? (track.goesOut ? 'goes out as a draft' : 'learners do not get it') : ''
  return [what, how, out].filter(Boolean).join(' · ')
}

const formats = [
  ['vtt', 'WebVTT'],
  ['ttml', 'TTML'],
  ['srt', 'SubRip'],
  ['txt', 'text'],
  ['docx', 'DOCX'],
] as const

/** One track: what it is, how far it is, and what can be done with it. */
export function TrackRow({ track }: { track: Track }) {
  const { lessonId, text, edit } = useWork()
  const me = useMe()
  const shown = text.track?.id === track.id
  const name = languageName(track.language)
  const set = (change: Partial<Track>) => edit((d) => ({ ...d, captions: d.captions.map((t) => (t.id === track.id ? { ...t, ...change } : t)) }))
  return (
    <li className="border-t border-hairline py-2 first:border-t-0">
      <Mark kind={marks[track.state]}>
        <b>{name}</b> <span className="text-quiet">· {stateOf(track)}</span>
      </Mark>
      <p className="pl-5 text-small text-quiet">
        {track.fileName}: {count(track.cueCount, 'caption')}
        {shown ? ' · in the sheet' : ''}
      </p>
      {shown && <LanguageNote track={track} />}
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-2 pl-5">
        {!shown && (
          <Button look="link" aria-label={`Show ${name} in the sheet`} onClick={() => text.choose(track.id)}>
            Show it
          </Button>
        )}
        {track.state === 'draft' && (
          <Button look="link" onClick={() => set({ state: 'corrected', kind: track.kind === 'machineDraft' ? 'captions' : track.kind, goesOut: false })}>
            It is corrected
          </Button>
        )}
        {track.state === 'draft' && (
          <Button look="link" onClick={() => set({ goesOut: !track.goesOut })}>
            {track.goesOut ? 'Keep the draft from learners' : 'Release the draft'}
          </Button>
        )}
        {track.state === 'corrected' && (
          <Button look="link" onClick={() => set({ state: 'checked', checkedBy: me.data?.name, checkedAt: new Date().toISOString() })}>
            Checked by me
          </Button>
        )}
        <Button
          look="link"
          aria-label={`Remove the captions ${name}`}
          onClick={() => edit((d) => ({ ...d, captions: d.captions.filter((t) => t.id !== track.id) }))}
        >
          Remove
        </Button>
      </div>
      <p className="mt-1 flex flex-wrap gap-x-3 gap-y-2 pl-5 text-small text-quiet">
        Download as
        {formats.map(([ending, what]) => (
          <a key={ending} href={`/api/lessons/${lessonId}/captions/${track.id}/file.${ending}`} download className={linkLook} aria-label={`${name} as ${what}`}>
            {what}
          </a>
        ))}
      </p>
    </li>
  )
}
