import { described } from './described'
import { element, present } from './element'
import type { Words } from './language'
import type { Lesson } from './lesson'
import { leadsNowhere, type Player } from './player'

/** A lesson's description: times in it lead to their places. */
export function description(player: Player): HTMLElement {
  const { lesson } = player
  const made = element('div', {})
  const paragraphs = ({ description: { text, language } }: Words) =>
    described(text, lesson.length).map((stretches) =>
      element(
        'p',
        { class: 'description', dir: 'auto', lang: language },
        ...stretches.map((s) => (typeof s === 'string' ? s : element('button', { type: 'button', class: 'jump', click: () => player.playFrom(s.at) }, s.text))),
      ),
    )
  player.language.follow((words) => made.replaceChildren(...paragraphs(words)))
  return made
}

/** Who made a lesson, under which terms, for whom, and what it is filed under; nothing where nobody said. */
export function terms({ lesson }: Player): HTMLElement | null {
  const { author, licence, permission, fromAge, tags } = lesson.details
  const lines = present(
    author && element('p', {}, 'By ', authorOf(lesson)),
    licence && element('p', {}, licence.terms && !leadsNowhere(lesson) ? element('a', { href: licence.terms, rel: 'license' }, licence.name) : licence.name),
    permission && element('p', {}, permission),
    fromAge ? element('p', {}, `For people of ${fromAge} and over`) : null,
    tags.length > 0 && element('p', {}, `About: ${tags.join(', ')}`),
  )
  return lines.length > 0 ? element('div', { class: 'terms', dir: 'auto', lang: lesson.language }, ...lines) : null
}

/** The author's page on the web; a mail address is written to from below the picture. */
function authorOf(lesson: Lesson) {
  const author = lesson.details.author
  if (!author) return null
  return author.contact && /^https?:/i.test(author.contact) && !leadsNowhere(lesson) ? element('a', { href: author.contact }, author.name) : author.name
}
