import { useEffect, useRef } from 'react'

/** Letters and signs alone may be spoken by a program that types, or hit by accident: they can be switched off (WCAG 2.2, 2.1.4). */
const singleKeys = 'wexel-single-keys'
export const singleKeysWork = () => localStorage.getItem(singleKeys) !== 'off'
export const letSingleKeysWork = (on: boolean) => localStorage.setItem(singleKeys, on ? 'on' : 'off')

/** Runs an action for a key anywhere but in a field; Ctrl and Shift are written in front, as in "ctrl+shift+z". */
export function useKey(combination: string, action: () => void) {
  const latest = useRef(action)
  latest.current = action
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
      const shift = event.shiftKey && (event.key.length > 1 || event.ctrlKey)
      const name = `${event.ctrlKey || event.metaKey ? 'ctrl+' : ''}${shift ? 'shift+' : ''}${key}`
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
