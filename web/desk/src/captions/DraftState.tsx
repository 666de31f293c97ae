import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { languageName } from '../ui/LanguageInput'
import { Mark, type MarkKind } from '../ui/Mark'
import type { Draft } from './useText'

const marks: Record<Draft['state'], MarkKind> = { listening: 'working', done: 'behind', stopped: 'nothing', failed: 'failed', noEngine: 'nothing' }

const perCent = (share: number) => `${Math.round(100 * share)} %`

function words(draft: Draft): string {
  const far = draft.share > 0 ? `, ${perCent(draft.share)} so far` : ''
  switch (draft.state) {
    case 'listening':
      return `draft by this machine${far || ', comes when nothing else is to do'}`
    case 'done':
      return `draft by this machine${draft.sure == null ? '' : `, ${perCent(draft.sure)} sure`}`
    case 'stopped':
      return `draft stopped${far}`
    case 'failed':
      return `draft failed${far}`
    case 'noEngine':
      return 'no draft'
  }
}

/** The draft that this machine makes of what is said: how far it is, what to know of it, and taking it. */
export function DraftState({ draft, shown, choose }: { draft: Draft; shown: boolean; choose: () => void }) {
  const { lessonId, document, text } = useWork()
  const client = useQueryClient()
  const ask = useMutation({
    mutationFn: (what: 'stop' | 'listen') => taken(api.POST(`/api/lessons/{id}/draft/${what}`, { params: { path: { id: lessonId } } })),
    onSettled: () => client.invalidateQueries({ queryKey: ['draft', lessonId] }),
  })
  const otherLanguage = draft.language.split('-')[0] !== document.language.split('-')[0]
  const has = draft.cues.length > 0
  return (
    <li className="border-t border-hairline py-2 first:border-t-0">
      <Mark kind={marks[draft.state]}>
        <b>{languageName(draft.language)}</b> <span className="text-quiet">· {words(draft)}</span>
      </Mark>
      <div className="pl-5 text-small">
        {shown && has && <p className="text-quiet">In the sheet. What you correct there is kept as captions of your own; the draft stays.</p>}
        {draft.failure && <p className={draft.state === 'failed' ? 'text-brick' : 'text-quiet'}>{draft.failure}</p>}
        {draft.outlook.map((p) => (
          <p key={p.code} className="text-amber">
            {p.sentence}
          </p>
        ))}
        {otherLanguage && (
          <p className="text-amber">
            It was listened to as {languageName(draft.language)}, and the lesson is in {languageName(document.language)}.
          </p>
        )}
        {ask.error && (
          <p role="alert" className="text-brick">
            {ask.error.message}
          </p>
        )}
      </div>
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-2 pl-5">
        {!shown && has && (
          <Button look="link" onClick={choose}>
            Show the draft
          </Button>
        )}
        {draft.state === 'listening' && (
          <Button look="link" onClick={() => ask.mutate('stop')}>
            Stop
          </Button>
        )}
        {(draft.state === 'stopped' || draft.state === 'failed' || otherLanguage) && (
          <Button look="link" onClick={() => ask.mutate('listen')}>
            {otherLanguage || !has ? 'Listen to it' : 'Go on'}
          </Button>
        )}
        {draft.state === 'done' && has && (
          <>
            <Button look="link" onClick={() => text.take({ kind: 'captions', state: 'corrected' })}>
              It is right as it is
            </Button>
            <Button look="link" onClick={() => text.take({ goesOut: true })}>
              Release it as a draft
            </Button>
          </>
        )}
      </div>
    </li>
  )
}
