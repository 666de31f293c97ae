import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import type { Profile } from './settings'

interface Props {
  findings: Schemas['ProfileFinding'][]
  /** Takes the nearest setting that works; null where the profile cannot be changed. */
  take: ((profile: Profile) => void) | null
}

/** What does not hold for a profile, each with the nearest setting that works. */
export function Findings({ findings, take }: Props) {
  if (findings.length === 0) return <p className="text-quiet">Nothing speaks against it.</p>
  return (
    <ul>
      {findings.map((f) => (
        <li key={`${f.code} ${f.field}`} className="border-b border-hairline py-2">
          <Mark kind={f.isFault ? 'failed' : 'behind'}>{f.sentence}</Mark>
          {take && f.mended && f.way && (
            <span className="block pl-5">
              <Button look="link" onClick={() => take(f.mended as Profile)}>
                {f.way}
              </Button>
            </span>
          )}
        </li>
      ))}
    </ul>
  )
}
