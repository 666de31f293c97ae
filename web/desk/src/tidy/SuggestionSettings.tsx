import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { NumberField } from '../ui/NumberField'
import { Summary } from '../ui/Summary'

type Settings = Schemas['SuggestionSettings']

interface Props {
  data: Schemas['SuggestionsView']
  settle: (settings: Settings) => void
}

/** What counts as silence and as a long pause. */
export function SuggestionSettings({ data, settle }: Props) {
  const { settings } = data.suggesting
  return (
    <details className="mt-2">
      <Summary>What counts as silence</Summary>
      <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-2">
        <NumberField
          label="Quieter than, dB"
          value={data.threshold ?? undefined}
          least={-90}
          most={-10}
          take={(threshold) => settle({ ...settings, threshold })}
        />
        <NumberField
          label="Breath left at both ends, s"
          value={settings.breath / 1000}
          least={0}
          most={5}
          take={(s) => settle({ ...settings, breath: s * 1000 })}
        />
        <NumberField
          label="Pauses longer than, s"
          value={settings.longestPause / 1000}
          least={0.5}
          most={60}
          take={(s) => settle({ ...settings, longestPause: s * 1000 })}
        />
        <NumberField
          label="Shortened to, s"
          value={settings.keptPause / 1000}
          least={0}
          most={settings.longestPause / 1000}
          take={(s) => settle({ ...settings, keptPause: s * 1000 })}
        />
      </div>
      {data.noiseFloor != null && (
        <p className="mt-1 text-quiet">
          The recording’s own noise lies at {data.noiseFloor} dB.{' '}
          {settings.threshold != null && (
            <Button look="link" onClick={() => settle({ ...settings, threshold: null })}>
              Go by it again
            </Button>
          )}
        </p>
      )}
    </details>
  )
}
