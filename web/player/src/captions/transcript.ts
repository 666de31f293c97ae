import { element, present } from '../element'
import type { Captions, Section } from '../lesson'
import { now, type Player } from '../player'
import { clock } from '../time'
import { timeLink } from '../timeLink'
import { namesOf, type ShownCaptions } from '../tracks'

type Cue = Captions['cues'][number]

/** What is said in one go: below a heading where a section begins with it. */
export interface Paragraph<S extends Section = Section> {
  section: S | null
  cues: readonly Cue[]
}

const pauseMs = 2000
const longEnough = 240

/** What is said, in paragraphs: a new one begins with each section, behind a pause, and at the end of a sentence where the last one is long. */
export function paragraphs<S extends Section>(cues: readonly Cue[], sections: readonly S[]): Paragraph<S>[] {
  const found: { section: S | null; cues: Cue[] }[] = []
  let next = 0
  let length = 0
  for (const [i, cue] of cues.entries()) {
    let section: S | null = null
    // A section in which nothing is said has its heading all the same.
    while (next < sections.length && sections[next].at <= cue.span.start) {
      if (section) found.push({ section, cues: [] })
      section = sections[next]
      next++
    }
    const before = cues[i - 1]
    const pause = before !== undefined && cue.span.start - before.span.end >= pauseMs
    const full = length >= longEnough && before !== undefined && /[.?!…]["”’)]*$/.test(before.text)
    if (section || pause || full || found.length === 0) {
      found.push({ section, cues: [] })
      length = 0
    }
    found[found.length - 1].cues.push(cue)
    length += cue.text.length + 1
  }
  for (const section of sections.slice(next)) found.push({ section, cues: [] })
  return found
}

/** Where words stand in a text, however they are written: without regard to capitals and marks on letters. */
export function find(text: string, words: string): [start: number, end: number][] {
  const wanted = fold(words.trim()).folded
  if (wanted.length === 0) return []
  const { folded, from } = fold(text)
  const found: [number, number][] = []
  for (let at = folded.indexOf(wanted); at >= 0; at = folded.indexOf(wanted, at + wanted.length)) found.push([from[at], from[at + wanted.length]])
  return found
}

function fold(text: string) {
  let folded = ''
  const from: number[] = []
  let at = 0
  for (const letter of text) {
    const plain = letter.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
    for (let i = 0; i < plain.length; i++) from.push(at)
    folded += plain
    at += letter.length
  }
  from.push(text.length)
  return { folded, from }
}

/** A cue's lines as one text. */
const flat = (cue: Cue) => cue.text.replaceAll('\n', ' ')

/** The whole transcript as text: headings, then what is said, each paragraph with its time. */
export function asText(title: string, all: readonly Paragraph[]): string {
  const blocks = all.flatMap(({ section, cues }) => [
    ...(section ? [`${clock(section.at)} ${section.title}`] : []),
    ...(cues.length > 0 ? [section ? cues.map(flat).join(' ') : `${clock(cues[0].span.start)} ${cues.map(flat).join(' ')}`] : []),
  ])
  return `${[title, ...blocks].join('\n\n')}\n`
}

/** What is said, to be read, searched, copied, and played from: the words that are spoken are marked, and stay in sight until somebody scrolls. */
export function transcript(player: Player, captions: ShownCaptions): HTMLElement {
  const { lesson, video } = player
  const titled = () => player.language.words().sections.map((said, i) => ({ ...lesson.sections[i], title: said.text, language: said.language }))
  const text = element('div', { class: 'said' })
  const count = element('span', { role: 'status' })
  const field = element('input', { type: 'search', placeholder: 'Find in this lesson', 'aria-label': 'Find in this lesson' })
  const copied = element('span', { role: 'status' })
  let track = Math.max(0, captions.chosen())
  let words: { cue: Cue; shown: HTMLElement }[] = []
  let hits: HTMLElement[] = []
  let hit = -1
  let spoken: HTMLElement | undefined

  const follow = element('button', { type: 'button', class: 'link', hidden: true }, 'Follow what is said')
  follow.addEventListener('click', () => {
    follow.hidden = true
    if (spoken) bringIn(spoken)
  })
  // Whoever scrolls by hand reads; what follows by itself would take the page away.
  const reads = (event: Event) => {
    // A press on the words plays from there; one on the box itself is on its scroll bar.
    if (event.type !== 'pointerdown' || event.target === text) follow.hidden = text.scrollHeight <= text.clientHeight
  }
  for (const event of ['wheel', 'touchmove', 'pointerdown']) text.addEventListener(event, reads, { passive: true })
  const bringIn = (shown: HTMLElement) => {
    const [at, height] = [shown.offsetTop, text.clientHeight]
    if (at < text.scrollTop || at + shown.offsetHeight > text.scrollTop + height) text.scrollTop = at - height / 3
  }

  // Whoever chooses words wants to go on with them.
  const playFrom = (cue: Cue) => {
    follow.hidden = true
    player.playFrom(cue.span.start)
  }

  const write = (cue: Cue, shown: HTMLElement) => {
    const said = flat(cue)
    let from = 0
    const parts: (string | Node)[] = []
    for (const [start, end] of find(said, field.value)) {
      const mark = element('mark', {}, said.slice(start, end))
      hits.push(mark)
      parts.push(said.slice(from, start), mark)
      from = end
    }
    shown.replaceChildren(...parts, said.slice(from))
  }
  const draw = () => {
    const { cues, language } = lesson.captions[track]
    words = []
    spoken = undefined
    text.lang = language
    const time = (ms: number) => timeLink(player, ms)
    text.replaceChildren(
      ...paragraphs(cues, titled()).flatMap(({ section, cues: said }) =>
        present<HTMLElement>(
          section && element('h2', { dir: 'auto', lang: section.language }, time(section.at), ' ', section.title),
          said.length > 0 &&
            element(
              'p',
              { dir: 'auto' },
              section ? null : time(said[0].span.start),
              ...said.flatMap((cue) => {
                const shown = element('span', { click: () => getSelection()?.isCollapsed !== false && playFrom(cue) })
                words.push({ cue, shown })
                return [shown, ' ']
              }),
            ),
        ),
      ),
    )
    search()
    tell()
  }
  const search = () => {
    hits = []
    hit = -1
    for (const { cue, shown } of words) write(cue, shown)
    count.textContent = field.value.trim() === '' ? '' : hits.length === 0 ? 'Not said here' : `${hits.length} found`
    if (hits.length > 0) toHit(0)
  }
  const toHit = (to: number) => {
    hits[hit]?.removeAttribute('aria-current')
    hit = (to + hits.length) % hits.length
    hits[hit].setAttribute('aria-current', 'true')
    count.textContent = `${hit + 1} of ${hits.length}`
    follow.hidden = false
    bringIn(hits[hit])
  }
  field.addEventListener('input', search)
  field.addEventListener('keydown', (event) => {
    if (event.key !== 'Enter' || hits.length === 0) return
    event.preventDefault()
    toHit(hit + (event.shiftKey ? -1 : 1))
  })
  const tell = () => {
    const at = now(player)
    const index = words.findLastIndex(({ cue }) => cue.span.start <= at)
    const is = index >= 0 && at < words[index].cue.span.end + pauseMs ? words[index].shown : undefined
    if (is !== spoken) {
      spoken?.classList.remove('now')
      is?.classList.add('now')
      spoken = is
    }
    // Also where the same words are still said, and the transcript was opened meanwhile.
    if (is && follow.hidden) bringIn(is)
  }
  video.addEventListener('timeupdate', tell)

  const names = namesOf(lesson.captions)
  const language =
    names.length > 1
      ? element(
          'select',
          { 'aria-label': 'Language of the transcript' },
          ...names.map((name, i) => element('option', { value: String(i), lang: lesson.captions[i].language }, name)),
        )
      : null
  if (language) {
    language.value = String(track)
    language.addEventListener('change', () => {
      track = Number(language.value)
      draw()
    })
  }
  const copy = element('button', { type: 'button', class: 'link' }, 'Copy it all')
  copy.addEventListener('click', async () => {
    const whole = asText(player.language.words().title.text, paragraphs(lesson.captions[track].cues, titled()))
    try {
      await navigator.clipboard.writeText(whole)
      copied.textContent = 'Copied'
    } catch {
      getSelection()?.selectAllChildren(text)
      copied.textContent = 'This browser lets no page copy: it is marked, copy it by hand'
    }
  })
  player.language.follow(() => {
    const chosen = captions.inLanguage(player.language.chosen())
    if (chosen >= 0) track = chosen
    if (language) language.value = String(track)
    draw()
  })
  return element(
    'div',
    { class: 'transcript' },
    element('div', { class: 'finding' }, field, count, language),
    text,
    element('p', { class: 'fine' }, copy, ' ', copied, ' ', follow),
  )
}
