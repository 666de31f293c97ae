import { useEffect, useRef, useState } from 'react'
import { Dialog } from '../ui/Dialog'

const list: [string, string][] = [
  ['Space', 'Play or pause'],
  ['← →', '5 seconds back or on'],
  ['Shift ← →', 'One frame back or on'],
  ['↑ ↓', 'One row of the sheet back or on'],
  ['+ −', 'Look at the sheet closer, or from farther away'],
  ['S', 'Set a section at the playing position'],
  ['[ ]', 'Tidy: the selected stretch starts or ends at the playing position'],
  ['Shift ↑ ↓', 'Tidy: one row more or less of it'],
  ['X', 'Tidy: cut the selected stretch, or restore it'],
  ['T L', 'Tidy: take the next suggested cut, or leave it'],
  ['H', 'Tidy: hear it cut'],
  ['M', 'Tidy: move in for the selected stretch'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['? F1', 'This list'],
]

/** Letters and signs alone may be spoken by a program that types, or hit by accident: they can be switched off (WCAG 2.2, 2.1.4). */
const singleKeys = 'wexel-single-keys'
const singleKeysWork = () => localStorage.getItem(singleKeys) !== 'off'

/** Runs an action for a key anywhere but in a field; Ctrl and Shift are written in front, as in "ctrl+shift+z". */
export function useKey(combination: string, action: () => void) {
  const latest = useRef(action)
  latest.current = action
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
      const name = `${event.ctrlKey || event.metaKey ? 'ctrl+' : ''}${event.shiftKey && event.key.length > 1 ? 'shift+' : event.shiftKey && event.ctrlKey ? 'shift+' : ''}${key}`
      if (name !== combination || target.closest('input, textarea, select, [contenteditable], [role=dialog]')) return
      if (name.length === 1 && name !== ' ' && !singleKeysWork()) return
      if (key === ' ' && target.closest('button, summary')) return
      event.preventDefault()
      latest.current()
    }
    addEventListener('keydown', pressed)
    return () => removeEventListener('keydown', pressed)
  }, [combination])
}

export function Keys({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [single, setSingle] = useState(singleKeysWork)
  const choose = (on: boolean) => {
    localStorage.setItem(singleKeys, on ? 'on' : 'off')
    setSingle(on)
  }
  return (
    <Dialog open={open} onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[140px_1fr] gap-y-2">
        {list.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-mono">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex gap-2 border-t border-hairline pt-3">
        <input type="checkbox" checked={single} onChange={(e) => choose(e.target.checked)} />
        Letters and signs work alone, without Ctrl
      </label>
    </Dialog>
  )
}
