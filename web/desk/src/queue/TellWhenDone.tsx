import { useState } from 'react'
import { Button } from '../ui/Button'
import { wantsToBeTold, wantToBeTold } from './tell'

/** Switches the desktop's own notification on and off; what the browser forbids is said. */
export function TellWhenDone() {
  const [on, setOn] = useState(wantsToBeTold)
  const [refused, setRefused] = useState(false)
  if (!('Notification' in window)) return null
  const change = async () => {
    if (on) {
      wantToBeTold(false)
      setOn(false)
      return
    }
    const allowed = (await Notification.requestPermission()) === 'granted'
    if (allowed) wantToBeTold(true)
    setOn(allowed)
    setRefused(!allowed)
  }
  return (
    <span className="flex items-center gap-3">
      {refused && <span className="text-amber">The browser does not allow it; permit notifications for this page in its settings.</span>}
      <Button look="link" aria-pressed={on} onClick={change}>
        {on ? 'This computer tells you when all is done' : 'Tell me on this computer when all is done'}
      </Button>
    </span>
  )
}
