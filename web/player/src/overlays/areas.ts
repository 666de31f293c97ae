import { element } from '../element'
import { now, type Player } from '../player'
import { actions } from './actions'
import { type Area, clipOf, cornersAt, pathOf, placeOf } from './outline'

/** How often somebody clicks elsewhere before the place is shown. */
const misses = 2

const svg = (tag: string, attributes: Record<string, string>, ...children: Element[]) => {
  const made = document.createElementNS('http://www.w3.org/2000/svg', tag)
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value)
  made.append(...children)
  return made
}

/** Puts places to click over the picture, where they are seen; some of them stop it until they are clicked. */
export function areas(player: Player, layer: HTMLElement) {
  const { lesson, video, over } = player
  if (lesson.areas.length === 0) return
  const shown = new Map<Area, { button: HTMLElement; path: Element }>()
  const done = new Set<Area>()
  let waiting: { area: Area; elsewhere: HTMLElement; box: HTMLElement; before: Element | null } | null = null
  let ready = false
  let last = -1

  const says = (area: Area, text: string) => {
    over.querySelector('.ask-text')?.remove()
    const close = () => {
      box.remove()
      shown.get(area)?.button.focus({ preventScroll: true })
      player.tell('freed', null)
    }
    const box = element(
      'section',
      { class: 'ask ask-text', role: 'dialog', 'aria-label': area.text, keydown: (event) => byKey(event, close) },
      element('p', { class: 'text', dir: 'auto' }, text),
      element('p', { class: 'ends' }, element('button', { type: 'button', click: close }, 'Close')),
    )
    over.append(box)
    box.querySelector('button')?.focus({ preventScroll: true })
  }
  const byKey = (event: Event, close?: () => void) => {
    event.stopPropagation()
    if (event instanceof KeyboardEvent && event.key === 'Escape') close?.()
  }

  const isThere = (area: Area, ms: number) => (area.does.kind === 'wait' ? waiting?.area === area : ms >= area.from && ms < area.until)
  /** Draws what is there where it is seen. */
  function draw() {
    const ms = now(player)
    for (const area of lesson.areas) {
      const made = shown.get(area)
      if (!isThere(area, ms)) {
        made?.button.remove()
        shown.delete(area)
        continue
      }
      const corners = cornersAt(area, ms)
      const { button, path } = made ?? make(area)
      Object.assign(button.style, placeOf(corners))
      button.style.clipPath = clipOf(area.shape, corners)
      path.setAttribute('d', pathOf(area.shape, corners))
    }
  }
  function make(area: Area) {
    const button = actions[area.does.kind](area, { player, say: (text) => says(area, text), goOn: () => goOn(true) })
    button.className = `area area-${area.does.kind}`
    const path = svg('path', { 'vector-effect': 'non-scaling-stroke' })
    button.append(
      svg('svg', { viewBox: '0 0 100 100', preserveAspectRatio: 'none', 'aria-hidden': 'true' }, path),
      element('span', { class: 'spoken', dir: 'auto' }, area.text),
    )
    button.title = area.does.kind === 'wait' ? '' : area.text
    button.addEventListener('keydown', (event) => event.key !== 'Tab' && byKey(event))
    layer.append(button)
    const made = { button, path }
    shown.set(area, made)
    return made
  }

  /** Stops where somebody is to click. */
  function stand(area: Area) {
    video.pause()
    if (Math.abs(now(player) - area.from) > 1) player.go(area.from)
    let missed = 0
    const said = element('p', { role: 'status' })
    const showIt = () => {
      shown.get(area)?.button.classList.add('found')
      shown.get(area)?.button.focus({ preventScroll: true })
    }
    const miss = () => {
      missed++
      said.textContent = area.does.says ?? 'Not there.'
      if (missed >= misses) shown.get(area)?.button.classList.add('found')
    }
    const elsewhere = element('div', { class: 'elsewhere', click: miss })
    const title = element('h2', { tabindex: '-1' }, 'Your turn. Click on the picture: ', element('bdi', {}, area.text))
    const box = element(
      'section',
      { class: 'ask ask-wait', role: 'dialog', 'aria-label': 'Your turn', keydown: (event) => byKey(event, () => goOn(false)) },
      title,
      said,
      element(
        'p',
        { class: 'ends' },
        element('button', { type: 'button', class: 'link', click: showIt }, 'Show me where'),
        element('button', { type: 'button', class: 'link', click: () => goOn(false) }, 'Go on without'),
      ),
    )
    waiting = { area, elsewhere, box, before: document.activeElement }
    layer.prepend(elsewhere)
    over.append(box)
    draw()
    title.focus({ preventScroll: true })
  }
  /** @param clicked Whether the place was found. */
  function goOn(clicked: boolean) {
    if (!waiting) return
    const { area, before } = waiting
    away()
    done.add(area)
    last = Math.max(last, area.from)
    if (clicked) player.tell('freed', null)
    if (before instanceof HTMLElement && before !== document.body && before.isConnected) before.focus({ preventScroll: true })
    else document.querySelector<HTMLElement>('#wexel-stage media-play-button')?.focus({ preventScroll: true })
    video.play().catch(() => undefined)
  }
  function away() {
    if (!waiting) return
    waiting.elsewhere.remove()
    waiting.box.remove()
    waiting = null
    draw()
  }

  function check() {
    if (!ready || waiting || video.seeking || over.childElementCount > 0) return
    const here = now(player)
    const due = lesson.areas.find((a) => a.does.kind === 'wait' && !done.has(a) && a.from > last && a.from <= here + 8)
    if (due) stand(due)
    else last = here
  }
  const frames = () => {
    check()
    draw()
    if (!video.paused && !video.ended) requestAnimationFrame(frames)
  }
  player.follow('known', () => {
    ready = true
    last = now(player) - 1
    draw()
  })
  video.addEventListener('playing', frames)
  video.addEventListener('timeupdate', () => {
    // A page that is not looked at draws no frames.
    check()
    draw()
  })
  video.addEventListener('play', () => {
    if (waiting) video.pause()
    else over.querySelector('.ask-text')?.remove()
  })
  video.addEventListener('seeking', () => {
    const there = now(player)
    // Whoever goes elsewhere is not held.
    if (waiting && Math.abs(there - waiting.area.from) > 60) away()
    if (!waiting) last = there - 1
    draw()
  })
}
