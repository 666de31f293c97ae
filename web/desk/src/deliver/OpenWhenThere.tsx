import { useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import { isUnderWay, type Place } from './places'

const kept = 'wexel-open-when-there'

/** Opens the page of what gets to its place while somebody waits here, if that is wished. */
export function OpenWhenThere({ places }: { places: Place[] }) {
  const [wished, wish] = useState(() => localStorage.getItem(kept) === 'on')
  const waiting = useRef(new Set<string>())
  useEffect(() => {
    for (const place of places) {
      if (isUnderWay(place.way?.phase)) waiting.current.add(place.id)
      else if (waiting.current.delete(place.id) && place.way?.phase === 'live') tell(place, wished)
    }
  }, [places, wished])
  if (!places.some((p) => p.hasPages || p.handsOn?.link)) return null
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="accent-copper"
        checked={wished}
        onChange={(e) => {
          localStorage.setItem(kept, e.target.checked ? 'on' : 'off')
          wish(e.target.checked)
        }}
      />
      Open it when it is there
    </label>
  )
}

function tell(place: Place, wished: boolean) {
  const link = place.handsOn?.link
  // A browser may not let a page open another one that nobody clicked for: then a click is offered.
  const opened = link && wished ? window.open(link, '_blank') : null
  if (opened) {
    opened.opener = null
    return
  }
  toast.success(`“${place.name}” has it`, link ? { action: { label: 'Open', onClick: () => window.open(link, '_blank', 'noopener') } } : undefined)
}
