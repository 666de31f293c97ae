import { described } from './described'
import { element } from './element'
import type { Lesson } from './lesson'

/** What is said about a lesson below its title: the description, whose times lead to their places, and who made it under which terms. */
export function about(lesson: Lesson, go: (ms: number) => void): HTMLElement[] {
  const { author, licence, permission, fromAge, tags } = lesson.details
  const said = { dir: 'auto', lang: lesson.language }
  const paragraphs = described(lesson.description, lesson.length).map((stretches) =>
    element(
      'p',
      { class: 'description', ...said },
      ...stretches.map((s) => (typeof s === 'string' ? s : element('button', { type: 'button', class: 'jump', click: () => go(s.at) }, s.text))),
    ),
  )
  const lines = [
    author && element('p', {}, 'By ', contactOf(author)),
    licence && element('p', {}, licence.terms ? element('a', { href: licence.terms, rel: 'license' }, licence.name) : licence.name),
    permission && element('p', {}, permission),
    fromAge ? element('p', {}, `For people of ${fromAge} and over`) : null,
    tags.length > 0 && element('p', {}, `About: ${tags.join(', ')}`),
    lesson.details.mayDownload && canBeDownloaded(lesson) && element('p', {}, element('a', { href: lesson.video, download: '' }, 'Download the video')),
  ].filter((line): line is HTMLParagraphElement => Boolean(line))
  return lines.length > 0 ? [...paragraphs, element('div', { class: 'terms', ...said }, ...lines)] : paragraphs
}

function contactOf({ name, contact }: { name: string; contact?: string | null }) {
  if (!contact) return name
  return element('a', { href: /^https?:/i.test(contact) ? contact : `mailto:${contact}` }, name)
}

/** What comes in pieces is no file that could be kept. */
function canBeDownloaded(lesson: Lesson) {
  return !lesson.video.endsWith('.m3u8')
}
