import { useMutation } from '@tanstack/react-query'
import { toast } from 'sonner'
import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { Summary } from '../ui/Summary'
import { TextLink } from '../ui/TextLink'
import { day, size } from '../ui/words'

interface Props {
  made: Schemas['PackageView']
  what: string
  /** The outlet's name, where things are put there from here. */
  sendTo?: string
  /** Puts it there; missing where releasing does that by itself. */
  send?: () => Promise<unknown>
  onSent?: () => void
}

/** A package that was made: to download, to look into, and to send. */
export function PackageRow({ made, what, sendTo, send, onSent }: Props) {
  const sending = useMutation({
    mutationFn: async () => send?.(),
    onSuccess: () => toast.success(`${sendTo} has taken the package`),
    onError: (problem) => toast.error(problem.message),
    onSettled: onSent,
  })
  const { sent } = made
  return (
    <div className="flex flex-col gap-1">
      <TextLink href={made.link} download>
        Download the {what} as a ZIP, {size(made.bytes)}
      </TextLink>
      {sendTo && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          {send && (!sent || sent.behind) && (
            <Button onClick={() => sending.mutate()} disabled={sending.isPending}>
              {sending.isPending ? `Sending ${size(made.bytes)}…` : `Send to ${sendTo}`}
            </Button>
          )}
          {sent && (
            <Mark kind={sent.behind ? 'behind' : 'live'}>
              {sent.behind ? `${sendTo} has an older package` : `Sent to ${sendTo}`}, {day(sent.at)}
            </Mark>
          )}
          {sent?.to && send && (
            <TextLink href={sent.to} out>
              Open it there
            </TextLink>
          )}
        </p>
      )}
      <details>
        <Summary>What is in it</Summary>
        <ul className="mt-1">
          {made.files.map((f) => (
            <li key={f.path} className="py-0.5">
              <span className={`font-mono text-small ${f.isThePageToLink ? 'font-bold' : ''}`}>{f.path}</span>{' '}
              <span className="text-quiet">
                {size(f.bytes)}. {f.purpose}
              </span>
            </li>
          ))}
        </ul>
      </details>
    </div>
  )
}
