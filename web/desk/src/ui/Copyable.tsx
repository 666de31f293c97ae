import { toast } from 'sonner'
import { Button } from './Button'
import { TextLink } from './TextLink'

/** Copies a text, and says so. */
export async function copy(label: string, text: string) {
  try {
    await navigator.clipboard.writeText(text)
    toast.success(`${label} copied`)
  } catch {
    toast.error(`The browser does not let it be copied. Select the ${label.toLowerCase()} and copy it by hand.`)
  }
}

/** A text to hand on, with a button that copies it. */
export function Copyable({ label, text, open }: { label: string; text: string; open?: boolean }) {
  return (
    <div className="grid grid-cols-[84px_1fr_auto] items-center gap-2">
      <span className="text-quiet">{label}</span>
      <input
        readOnly
        aria-label={label}
        value={text}
        onFocus={(e) => e.target.select()}
        className="min-w-0 border border-hairline bg-field px-2 py-1 font-mono text-small"
      />
      <span className="flex gap-3">
        <Button look="link" onClick={() => copy(label, text)}>
          Copy
        </Button>
        {open && (
          <TextLink href={text} out>
            Open
          </TextLink>
        )}
      </span>
    </div>
  )
}
