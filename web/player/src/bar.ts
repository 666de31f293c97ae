import 'media-chrome/dist/media-controller.js'
import 'media-chrome/dist/media-fullscreen-button.js'
import 'media-chrome/dist/media-mute-button.js'
import 'media-chrome/dist/media-pip-button.js'
import 'media-chrome/dist/media-play-button.js'
import 'media-chrome/dist/media-time-range.js'
import 'media-chrome/dist/media-volume-range.js'
import { addTranslation, setLanguage } from 'media-chrome/dist/utils/i18n.js'
import { element } from './element'
import { keep, kept } from './kept'
import { languageChoice } from './language'
import { now, type Player } from './player'
import type { Sizes } from './source'
import { clock } from './time'
import { type CuePlace, type CueSize, cuePlaces, cueSizes, type ShownCaptions } from './tracks'

// What a button is called is what stands on it (WCAG 2.2, 2.5.3).
addTranslation('wexel', {
  play: 'Play',
  pause: 'Pause',
  mute: 'Mute',
  unmute: 'Sound on',
  volume: 'How loud',
  seek: 'Place in the lesson',
  'enter fullscreen mode': 'Full screen',
  'exit fullscreen mode': 'Small again',
  'enter picture in picture mode': 'In a small window',
  'exit picture in picture mode': 'Back on the page',
})
setLanguage('wexel')

const speeds = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2]
const skipSeconds = 10

const word = (slot: string, text: string) => element('span', { slot, class: 'word' }, text)
const part = (tag: string, attributes: Record<string, string | boolean>, ...children: Node[]) =>
  element(tag, { mediacontroller: 'wexel-media', ...attributes }, ...children)

/** One of several: its words say what holds now. */
function choice(label: string, options: readonly { value: string; text: string; lang?: string }[], value: string, chose: (value: string) => void) {
  const made = element('select', { 'aria-label': label }, ...options.map((o) => element('option', { value: o.value, lang: o.lang }, o.text)))
  made.value = value
  made.addEventListener('change', () => chose(made.value))
  return made
}

/** Buttons and choices that are opened from the bar. */
function drawer(name: string, ...inside: (Node | null)[]) {
  const made = element('details', { class: 'drawer' }, element('summary', {}, name), element('div', {}, ...inside))
  const close = () => {
    made.open = false
  }
  made.addEventListener('keydown', (event) => {
    if (event.key !== 'Escape' || !made.open) return
    event.stopPropagation()
    close()
    made.querySelector('summary')?.focus()
  })
  document.addEventListener('pointerdown', (event) => {
    // What is pressed in a dialog that was opened from here leaves it open: the focus comes back to it.
    if (event.target instanceof Element && !made.contains(event.target) && !event.target.closest('dialog')) close()
  })
  return made
}

function loudness() {
  return drawer(
    'Sound',
    part('media-mute-button', {}, word('off', 'Sound on'), ...['low', 'medium', 'high'].map((slot) => word(slot, 'Mute'))),
    part('media-volume-range', {}),
  )
}

function speed({ video }: Player) {
  const before = Number(kept('speed'))
  if (speeds.includes(before)) video.defaultPlaybackRate = video.playbackRate = before
  const made = choice(
    'Speed',
    speeds.map((s) => ({ value: String(s), text: `${s}×` })),
    String(video.playbackRate),
    (value) => {
      video.defaultPlaybackRate = video.playbackRate = Number(value)
      keep('speed', value)
    },
  )
  video.addEventListener('ratechange', () => {
    made.value = String(video.playbackRate)
  })
  return made
}

function captionLanguage({ lesson }: Player, captions: ShownCaptions) {
  if (captions.names.length === 0) return null
  const made = choice(
    'Captions',
    [
      { value: '-1', text: 'No captions' },
      ...captions.names.map((name, i) => ({
        value: String(i),
        text: captions.names.length > 1 || captions.draft(i) ? `Captions: ${name}` : 'Captions',
        lang: lesson.captions[i].language,
      })),
    ],
    String(captions.chosen()),
    (value) => captions.choose(Number(value)),
  )
  captions.changed(() => {
    made.value = String(captions.chosen())
  })
  return made
}

const sizeWords: Record<CueSize, string> = { small: 'small', usual: 'usual', large: 'large', largest: 'largest' }
const placeWords: Record<CuePlace, string> = { low: 'low on the picture', high: 'high on the picture', under: 'under the picture' }

/** A choice with its label before it. */
const labelled = (label: string, made: HTMLSelectElement) => {
  made.removeAttribute('aria-label')
  return element('label', {}, label, ' ', made)
}

function captionLook(captions: ShownCaptions) {
  if (captions.names.length === 0) return []
  return [
    labelled(
      'Captions are',
      choice(
        '',
        cueSizes.map((size) => ({ value: size, text: sizeWords[size] })),
        captions.size(),
        (value) => captions.setSize(value as CueSize),
      ),
    ),
    labelled(
      'and stand',
      choice(
        '',
        cuePlaces.map((place) => ({ value: place, text: placeWords[place] })),
        captions.place(),
        (value) => captions.setPlace(value as CuePlace),
      ),
    ),
  ]
}

/** Which size is played, where there are several. */
export function sizeChoice({ heights, choose }: Sizes) {
  return choice('Size of the picture', [{ value: '', text: 'Size: fits' }, ...heights.map((h) => ({ value: String(h), text: `Size: ${h}` }))], '', (value) =>
    choose(value === '' ? null : Number(value)),
  )
}

/** What else the bar can do: what is only there on some pages. */
export interface Besides {
  /** Opens the list of keys. */
  keys(): void
  /** Gives the picture the whole width, or takes it back; null where it has it. */
  wide: (() => boolean) | null
  /** Opens and closes what stands beside the picture, where it lies over it. */
  panel: (() => boolean) | null
}

/** A button that says what pressing it does. */
function either(here: string, there: string, press: () => boolean, on = false) {
  const made = element('button', { type: 'button' }, on ? there : here)
  made.addEventListener('click', () => {
    made.textContent = press() ? there : here
  })
  return made
}

/** The picture with the bar under it: buttons with words, in the order in which they are used. */
export function stage(player: Player, captions: ShownCaptions, besides: Besides): HTMLElement {
  const { video, lesson } = player
  const time = element('span', { class: 'time' })
  const tell = () => {
    const text = `${clock(now(player))} of ${clock(lesson.length)}`
    if (time.textContent !== text) time.textContent = text
  }
  video.addEventListener('timeupdate', tell)
  tell()
  const skip = (words: string, by: number) => element('button', { type: 'button', click: () => player.go(now(player) + by * 1000) }, words)
  return element(
    'div',
    { class: 'stage', id: 'wexel-stage', 'data-cues': captions.size() },
    element(
      'div',
      { class: 'screen' },
      element('media-controller', { id: 'wexel-media', nohotkeys: true, noautohide: true, fullscreenelement: 'wexel-stage', defaultsubtitles: false }, video),
      player.over,
    ),
    captions.under,
    part('media-time-range', { class: 'range' }),
    element(
      'div',
      { class: 'bar' },
      part('media-play-button', {}, word('play', '▶ Play'), word('pause', '❚❚ Pause')),
      skip(`Back ${skipSeconds} s`, -skipSeconds),
      skip(`On ${skipSeconds} s`, skipSeconds),
      time,
      element('span', { class: 'gap' }),
      besides.panel && either('Contents', 'Close contents', besides.panel),
      loudness(),
      speed(player),
      captionLanguage(player, captions),
      drawer(
        'More',
        lesson.embedded ? languageChoice(player.language) : null,
        ...captionLook(captions),
        document.pictureInPictureEnabled ? part('media-pip-button', {}, word('enter', 'In a small window'), word('exit', 'Back on the page')) : null,
        besides.wide && either('As wide as the window', 'Contents beside it again', besides.wide, kept('wide') === 'yes'),
        element('button', { type: 'button', click: besides.keys }, 'Keys'),
      ),
      part('media-fullscreen-button', {}, word('enter', 'Full screen'), word('exit', 'Small again')),
    ),
  )
}
