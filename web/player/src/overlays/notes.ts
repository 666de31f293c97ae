import { element } from '../element'
import type { Lesson } from '../lesson'
import { now, type Player } from '../player'

type Note = Lesson['notes'][number]

const hostOf = (address: string) => {
  try {
    return new URL(address).host || address.replace(/^mailto:/, '')
  } catch {
    return address
  }
}

/** A note as it stands over the picture. */
export const noteBox = ({ text, corner, address, picture }: Note) =>
  element(
    'div',
    { class: `note ${corner}`, dir: 'auto' },
    picture ? element('img', { src: picture, alt: '' }) : null,
    text ? element('p', {}, text) : null,
    address ? element('a', { href: address, target: '_blank', rel: 'noopener noreferrer' }, hostOf(address), element('span', {}, ' ↗')) : null,
  )

/** Shows notes over the picture as long as they are meant to be there; they are read out as they come. */
export function notes(player: Player, layer: HTMLElement) {
  const { lesson, video } = player
  if (lesson.notes.length === 0) return
  const stands = element('div', { class: 'notes', role: 'status' })
  layer.append(stands)
  const shown = new Map<string, HTMLElement>()
  const show = () => {
    const ms = now(player)
    for (const note of lesson.notes) {
      const there = ms >= note.from && ms < note.until
      const box = shown.get(note.id)
      if (there && !box) {
        const made = noteBox(note)
        shown.set(note.id, made)
        stands.append(made)
      } else if (!there && box) {
        box.remove()
        shown.delete(note.id)
      }
    }
  }
  for (const event of ['timeupdate', 'seeking', 'loadedmetadata']) video.addEventListener(event, show)
}
