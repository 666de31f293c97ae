import { element } from './element'
import { keep, kept } from './kept'
import { now, type Player } from './player'
import type { ShownCaptions } from './tracks'

interface Action {
  name: string
  words: string
  /** The character that does it; letters can be changed. */
  key: string
  run(): void
}

/** The keys that this learner has changed; what another version kept is forgotten. */
function changedKeys(): Record<string, string> {
  try {
    const read = JSON.parse(kept('keys') ?? '{}')
    return Object.fromEntries(Object.entries(read).filter((entry): entry is [string, string] => typeof entry[1] === 'string' && isCharacter(entry[1])))
  } catch {
    return {}
  }
}

const isCharacter = (key: string) => [...key].length === 1 && key !== ' '

/**
 * Keys that work anywhere on the page but in a field or on a control that uses them itself. Characters alone can be switched off and changed: a program
 * that types may say them, or a hand hit them (WCAG 2.2, 2.1.4).
 */
export function keys(player: Player, captions: ShownCaptions, stage: () => HTMLElement) {
  const { video } = player
  const press = (tag: string) => (stage().querySelector(tag) as HTMLElement | null)?.click()
  const by = (seconds: number) => () => player.go(now(player) + seconds * 1000)
  const toggle = () => (video.paused ? video.play().catch(() => undefined) : video.pause())
  const faster = (by: number) => () => {
    video.playbackRate = Math.min(2, Math.max(0.5, video.playbackRate + by))
  }
  const always: Record<string, () => void> = { ' ': toggle, ArrowLeft: by(-5), ArrowRight: by(5) }
  const actions: Action[] = [
    { name: 'play', words: 'Play and pause', key: 'p', run: toggle },
    { name: 'back', words: 'Back 10 s', key: 'b', run: by(-10) },
    { name: 'on', words: 'On 10 s', key: 'o', run: by(10) },
    { name: 'slower', words: 'Slower', key: '-', run: faster(-0.25) },
    { name: 'faster', words: 'Faster', key: '+', run: faster(0.25) },
    { name: 'captions', words: 'Captions, or none', key: 'c', run: () => captions.toggle() },
    { name: 'mute', words: 'Mute, or sound on', key: 'm', run: () => press('media-mute-button') },
    { name: 'full', words: 'Full screen, or small again', key: 'f', run: () => press('media-fullscreen-button') },
    { name: 'keys', words: 'These keys', key: '?', run: () => open() },
  ]
  const changed = changedKeys()
  const keyOf = (action: Action) => changed[action.name] ?? action.key
  const charactersWork = () => kept('letters') !== 'off'

  document.addEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || !(event.target instanceof Element)) return
    // A field that was just closed with its dialog has the focus until the next frame.
    if (event.target.closest('input, textarea, select, dialog, [contenteditable]')?.checkVisibility()) return
    if (event.key === ' ' && event.target.closest('button, a, summary, [role=button], .bar > *, .drawer *')) return
    if (event.key.startsWith('Arrow') && event.target.closest('media-time-range, media-volume-range, [role=tablist]')) return
    const run = always[event.key] ?? (charactersWork() ? actions.find((a) => keyOf(a) === event.key)?.run : undefined)
    if (!run) return
    event.preventDefault()
    run()
  })

  const dialog = element('dialog', { class: 'keys', 'aria-label': 'Keys' })
  const draw = () => {
    const wrong = element('p', { role: 'status', class: 'wrong' })
    const works = element('input', { type: 'checkbox' })
    works.checked = charactersWork()
    const rows = actions.map((action) => {
      const field = element('input', { maxlength: '2', size: '2', 'aria-label': `Key for: ${action.words}`, autocomplete: 'off', autocapitalize: 'off' })
      field.value = keyOf(action)
      field.disabled = !works.checked
      field.addEventListener('input', () => {
        const wanted = [...field.value].at(-1) ?? ''
        const other = actions.find((a) => a !== action && keyOf(a) === wanted)
        wrong.textContent = other ? `“${wanted}” is the key for: ${other.words}. Choose another.` : ''
        if (!other && isCharacter(wanted)) {
          changed[action.name] = wanted
          keep('keys', JSON.stringify(changed))
        }
        if (field.value !== '') field.value = keyOf(action)
      })
      field.addEventListener('blur', () => {
        field.value = keyOf(action)
      })
      return element('li', {}, element('span', {}, action.words), field)
    })
    works.addEventListener('change', () => {
      keep('letters', works.checked ? 'on' : 'off')
      for (const field of dialog.querySelectorAll<HTMLInputElement>('li input')) field.disabled = !works.checked
    })
    const asBefore = () => {
      for (const name of Object.keys(changed)) delete changed[name]
      keep('keys', '{}')
      draw()
    }
    dialog.replaceChildren(
      element('h2', {}, 'Keys'),
      element('p', {}, 'Space plays and pauses, ← and → go 5 s.'),
      element('label', {}, works, ' Single letters work too. Change one by typing another:'),
      element('ul', {}, ...rows),
      wrong,
      element(
        'p',
        { class: 'ends' },
        element('button', { type: 'button', click: () => dialog.close() }, 'Close'),
        element('button', { type: 'button', class: 'link', click: asBefore }, 'All as they were'),
      ),
    )
  }
  const open = () => {
    draw()
    // In full screen only what lies in the stage is seen.
    ;(document.fullscreenElement ?? document.body).append(dialog)
    dialog.showModal()
  }
  return { open }
}
