import { element, present } from './element'
import type { Lesson, Place } from './lesson'
import { notes } from './notes'
import { leadsNowhere, now, type Player } from './player'
import { clock } from './time'

/** What a learner can do with a lesson besides watching it: as the trainer allows, and nothing that leads away where it is made for children. */
export function doing(player: Player): HTMLElement[] {
  const { lesson, place } = player
  const served = place?.served
  const away = leadsNowhere(lesson)
  const written = !away && lesson.details.mayWrite ? writing(player) : null
  const embedded = !away && served?.embedCode ? embedding(served.embedCode) : null
  const noted = !away && served?.notesTo ? notes(player, served.notesTo) : null
  const corrected = !away && served?.correcting ? correcting(player, served.correcting) : null
  const actions = present<HTMLElement>(download(lesson, served), embedded?.button, written, noted?.button, corrected)
  if (actions.length === 0) return []
  return [
    element('ul', { class: 'doing', 'aria-label': 'With this lesson' }, ...actions.map((action) => element('li', {}, action))),
    ...present(embedded?.box, noted?.box),
  ]
}

type Served = NonNullable<Place['served']>

/** The file to keep: the one that the server says, in a package the one that plays. */
function download(lesson: Lesson, served?: Served | null) {
  const file = served ? served.download : lesson.details.mayDownload ? playing(lesson) : null
  if (!file) return null
  const { bytes, width, height } = file
  const size = bytes < 950_000 ? `${Math.round(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
  const facts = present(file.kind, width > 0 && `${width} × ${height}`, bytes > 0 && size).join(', ')
  return element('a', { href: file.address, download: file.name }, `Download the ${width > 0 ? 'video' : 'sound'} (${facts})`)
}

/** What comes in pieces is no file that could be kept. */
function playing({ video, width, height }: Lesson): Served['download'] | null {
  const kind = video.split('.').at(-1)?.toUpperCase() ?? ''
  return kind === 'M3U8' ? null : { address: video, name: '', kind, width, height, bytes: 0 }
}

/** A button that shows a box below, and hides it again. */
function opened(words: string, box: HTMLElement) {
  box.hidden = true
  const button = element('button', { type: 'button', class: 'link', 'aria-expanded': 'false' }, words)
  button.addEventListener('click', () => {
    box.hidden = !box.hidden
    button.setAttribute('aria-expanded', String(!box.hidden))
    if (!box.hidden) box.querySelector<HTMLElement>('textarea, input')?.focus()
  })
  return { button, box }
}

function embedding(code: string) {
  const field = element('textarea', { readonly: true, rows: '3', 'aria-label': 'Embed code', spellcheck: 'false', focus: () => field.select() }, code)
  const copied = element('span', { role: 'status' })
  const copy = element('button', { type: 'button' }, 'Copy the code')
  copy.addEventListener('click', async () => {
    field.select()
    try {
      await navigator.clipboard.writeText(code)
      copied.textContent = 'Copied'
    } catch {
      copied.textContent = 'This browser lets no page copy: it is marked, copy it by hand'
    }
  })
  const box = element(
    'div',
    { class: 'box' },
    element('p', {}, 'Put this into the HTML of a page, and the lesson plays there:'),
    field,
    element('p', {}, copy, ' ', copied),
  )
  return opened('Embed', box)
}

/** For whoever makes lessons: to the captions at the moment that is seen. */
function correcting({ video }: Player, address: string) {
  const link = element('a', { href: `${address}?at=0` }, 'Correct the captions here')
  const lead = () => {
    link.href = `${address}?at=${Math.round(video.currentTime * 1000)}`
  }
  link.addEventListener('pointerdown', lead)
  link.addEventListener('focus', lead)
  link.addEventListener('click', lead)
  return link
}

/** A mail to the author that names the lesson and the moment. */
function writing(player: Player) {
  const { lesson, place, video } = player
  const author = lesson.details.author
  if (!author?.contact || /^https?:/i.test(author.contact)) return null
  const link = element('a', {}, `Write to ${author.name}`)
  const tell = () => {
    const at = now(player)
    const address = place?.served?.link ?? (location.protocol === 'file:' ? '' : location.href.split('#')[0])
    const body = address === '' ? '' : `&body=${encodeURIComponent(`\n\n${address}#t=${Math.floor(at / 1000)}\n`)}`
    link.href = `mailto:${author.contact}?subject=${encodeURIComponent(`${lesson.title}, at ${clock(at)}`)}${body}`
  }
  for (const event of ['timeupdate', 'pause', 'seeked']) video.addEventListener(event, tell)
  tell()
  return link
}
