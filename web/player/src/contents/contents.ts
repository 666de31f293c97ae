import { element } from '../element'
import { write } from '../language'
import { sectionAt, sectionSeen } from '../lesson'
import { now, type Player } from '../player'
import { timeLink } from '../timeLink'

/** The table of contents: the current section is marked, seen ones say so. */
export function contents(player: Player) {
  const { lesson, video } = player
  const marks: HTMLElement[] = []
  const titles = lesson.sections.map(() => element('span', { class: 'title', dir: 'auto' }))
  player.language.follow(({ sections }) => {
    for (const [i, said] of sections.entries()) write(titles[i], said)
  })
  const rows = lesson.sections.map((section, i) => {
    const seen = element('span', { class: 'seen' })
    marks.push(seen)
    const link = timeLink(player, section.at, titles[i], seen)
    return element('li', { class: section.nested ? 'nested' : null }, link)
  })
  let current = -1
  video.addEventListener('timeupdate', () => {
    const here = sectionAt(lesson.sections, now(player))
    if (here === current) return
    rows[current]?.querySelector('a')?.removeAttribute('aria-current')
    rows[here]?.querySelector('a')?.setAttribute('aria-current', 'true')
    current = here
  })
  player.follow('watched', (watched) => {
    for (const [index, mark] of marks.entries()) {
      const text = sectionSeen(lesson, index, watched) ? 'seen' : ''
      if (mark.textContent !== text) mark.textContent = text
    }
  })
  return element('nav', { class: 'contents', 'aria-label': 'Contents' }, element('ol', {}, ...rows))
}
