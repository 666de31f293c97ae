import 'media-chrome/dist/media-controller.js'
import 'media-chrome/dist/media-captions-button.js'
import 'media-chrome/dist/media-fullscreen-button.js'
import 'media-chrome/dist/media-mute-button.js'
import 'media-chrome/dist/media-play-button.js'
import 'media-chrome/dist/media-playback-rate-button.js'
import 'media-chrome/dist/media-time-range.js'
import { choiceOfCaptions } from './captions'
import { element } from './element'
import type { Lesson } from './lesson'
import { clock } from './time'

const word = (slot: string, text: string) => element('span', { slot, class: 'word' }, text)
/** A state has a mark beside its word, so that it does not look like something that will happen. */
const state = (slot: string, text: string, on: boolean) => element('span', { slot, class: on ? 'word is on' : 'word is' }, text)

/** The picture with the bar under it: buttons with words, in the order in which they are used. */
export function stage(lesson: Lesson, video: HTMLVideoElement): HTMLElement {
  const bar = (tag: string, attributes: Record<string, string | boolean>, ...children: Node[]) =>
    element(tag, { mediacontroller: 'wexel-media', ...attributes }, ...children)
  const time = element('span', { class: 'time' })
  const tell = () => {
    time.textContent = `${clock(video.currentTime * 1000)} of ${clock(lesson.length)}`
  }
  video.addEventListener('timeupdate', tell)
  tell()
  return element(
    'div',
    { class: 'stage', id: 'wexel-stage' },
    element('media-controller', { id: 'wexel-media', nohotkeys: true, noautohide: true, fullscreenelement: 'wexel-stage', defaultsubtitles: false }, video),
    bar('media-time-range', { class: 'range' }),
    element(
      'div',
      { class: 'bar' },
      bar('media-play-button', {}, word('play', '▶ Play'), word('pause', '❚❚ Pause')),
      time,
      element('span', { class: 'gap' }),
      element('span', { class: 'speed' }, 'Speed ', bar('media-playback-rate-button', { rates: '1 1.25 1.5 2 0.75' })),
      lesson.captions.length > 0 ? bar('media-captions-button', {}, state('on', 'Captions', true), state('off', 'Captions', false)) : null,
      choiceOfCaptions(video, lesson),
      bar('media-mute-button', {}, state('off', 'Sound', false), state('low', 'Sound', true), state('medium', 'Sound', true), state('high', 'Sound', true)),
      bar('media-fullscreen-button', {}, word('enter', 'Full screen'), word('exit', 'Small again')),
    ),
  )
}

/** The captions button says that it is on or off, which a plain button may not; to be called once the stage is in the page. */
export function asSwitch(stageElement: HTMLElement) {
  stageElement.querySelector('media-captions-button')?.setAttribute('role', 'switch')
}

const letters = 'wexel-letters'
const lettersWork = () => {
  try {
    return localStorage.getItem(letters) !== 'off'
  } catch {
    // A page from disk, or one inside another, may have no place to keep it: then they work.
    return true
  }
}

/** What the keys are, and whether letters alone are among them: a program that types may say them, or a hand hit them (WCAG 2.2, 2.1.4). */
export function keyList(): HTMLElement {
  const box = element('input', { type: 'checkbox' })
  box.checked = lettersWork()
  box.addEventListener('change', () => {
    try {
      localStorage.setItem(letters, box.checked ? 'on' : 'off')
    } catch {
      box.checked = true
    }
  })
  return element(
    'div',
    { class: 'keys' },
    element('p', {}, 'Keys: space plays, ← and → go 5 s.'),
    element('label', {}, box, ' Letters too: c captions, m sound, f full screen.'),
  )
}

/** Keys that work anywhere on the page but in a field or on a control that uses them itself. */
export function keys(video: HTMLVideoElement, stageElement: HTMLElement) {
  const press = (tag: string) => (stageElement.querySelector(tag) as HTMLElement | null)?.click()
  const skip = (seconds: number) => () => {
    video.currentTime += seconds
  }
  const actions: Record<string, () => void> = {
    ' ': () => (video.paused ? video.play().catch(() => undefined) : video.pause()),
    k: () => actions[' '](),
    ArrowLeft: skip(-5),
    ArrowRight: skip(5),
    c: () => press('media-captions-button'),
    m: () => press('media-mute-button'),
    f: () => press('media-fullscreen-button'),
  }
  document.addEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || !(event.target instanceof Element)) return
    if (event.target.closest('input, textarea, select, [contenteditable]')) return
    if (
      event.key === ' ' &&
      event.target.closest(
        'button, a, [role=button], media-play-button, media-captions-button, media-mute-button, media-fullscreen-button, media-playback-rate-button',
      )
    )
      return
    if (event.key.startsWith('Arrow') && event.target.closest('media-time-range')) return
    const action = actions[event.key]
    if (!action || (/^[a-z]$/.test(event.key) && !lettersWork())) return
    event.preventDefault()
    action()
  })
}
