import type { Range } from './completion'
import { element } from './element'
import { type Lesson, sectionAt, sectionSeen } from './lesson'
import { clock } from './time'

/** The table of contents beside the picture: the current section is marked, seen ones say so. */
export function contents(lesson: Lesson, go: (ms: number) => void) {
  const marks: HTMLElement[] = []
  const rows = lesson.sections.map((section) => {
    const seen = element('span', { class: 'seen' })
    marks.push(seen)
    const link = element(
      'a',
      {
        href: `#t=${section.at / 1000}`,
        click: (event) => {
          event.preventDefault()
          history.replaceState(null, '', `#t=${section.at / 1000}`)
          go(section.at)
        },
      },
      element('span', { class: 'at' }, clock(section.at)),
      element('span', { class: 'title', dir: 'auto', lang: lesson.language }, section.title),
      seen,
    )
    return element('li', { class: section.nested ? 'nested' : null }, link)
  })
  const nav = element('nav', { class: 'contents', 'aria-label': 'Contents' }, element('h2', {}, 'Contents'), element('ol', {}, ...rows))
  let current = -1
  return {
    nav,
    show(ms: number, watched: readonly Range[]) {
      const now = sectionAt(lesson.sections, ms)
      if (now !== current) {
        rows[current]?.querySelector('a')?.removeAttribute('aria-current')
        rows[now]?.querySelector('a')?.setAttribute('aria-current', 'true')
        current = now
      }
      marks.forEach((mark, index) => {
        const text = sectionSeen(lesson, index, watched) ? 'seen' : ''
        if (mark.textContent !== text) mark.textContent = text
      })
    },
  }
}
