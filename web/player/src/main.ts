import './player.css'
import { description, terms } from './about'
import { attendance } from './attendance'
import { type Besides, sizeChoice, stage } from './bar'
import { showCourse } from './course'
import { doing } from './doing'
import { element, present } from './element'
import { events } from './events'
import { keep, kept } from './kept'
import { keys } from './keys'
import { languageChoice, pageLanguage, write } from './language'
import type { Lesson, PageData, Place } from './lesson'
import { inBrowser, type Memory, nowhere, onServer } from './memory'
import { panels } from './panels'
import { parts } from './parts'
import { leadsNowhere, type Player, type PlayerEvents } from './player'
import { cannotLoad, play } from './source'
import { placeIn } from './time'
import { noCaptions } from './tracks'

function start(lesson: Lesson, place: Place | null, root: HTMLElement) {
  const video = element('video', { slot: 'media', poster: lesson.poster?.address, preload: 'metadata', playsinline: true })
  video.style.aspectRatio = `${lesson.width} / ${lesson.height}`
  const failed = element('p', { class: 'failed', role: 'alert', hidden: true })
  const player: Player = {
    lesson,
    place,
    language: pageLanguage(lesson),
    video,
    memory: memoryOf(lesson),
    captions: noCaptions(),
    over: element('div', { class: 'over' }),
    ...events<PlayerEvents>(),
    go(ms) {
      video.currentTime = Math.min(Math.max(ms, 0), lesson.length) / 1000
    },
    playFrom(ms) {
      player.go(ms)
      video.play().catch(() => undefined)
    },
    fail(sentence) {
      failed.hidden = false
      failed.textContent = sentence
    },
  }
  player.captions =
    parts()
      .find((part) => part.captions)
      ?.captions?.(player) ?? player.captions
  const { captions } = player
  player.language.follow(({ title }) => {
    video.setAttribute('aria-label', title.text)
    document.title = title.text
  })
  video.addEventListener('error', () => player.fail(cannotLoad))

  const stands = parts().map((part) => part.start?.(player))
  const beside = panels(present(...stands.map((s) => s?.panel)))
  const seen = attendance(player)

  const around = lesson.embedded ? embedded : onItsPage
  const main = element('main', {})
  const title = element('h1', { class: lesson.embedded ? 'spoken' : null, dir: 'auto' })
  player.language.follow((words) => write(title, words.title))
  player.language.changed((language) => captions.speak(language))
  const theKeys = keys(player, captions, () => theStage)
  const theStage = stage(player, captions, { keys: theKeys.open, ...around(player, main, beside) })
  main.append(
    ...(lesson.embedded
      ? [title, theStage, failed]
      : page(player, title, theStage, [failed, seen.back], beside, [...seen.lines, ...present(...stands.map((s) => s?.line))])),
  )
  if (lesson.embedded && beside) theStage.querySelector('.screen')?.append(beside)
  root.replaceChildren(...(lesson.embedded ? [main] : present(header(player), main, onward(player))))
  play(player, (sizes) => theStage.querySelector('.drawer:last-of-type')?.before(sizeChoice(sizes)))

  addEventListener('hashchange', () => {
    const at = placeIn(location.hash)
    if (at !== undefined) player.go(at)
  })
}

/** Inside another page the picture has all the room, and what stands beside it elsewhere lies over it when it is asked for. */
function embedded({ lesson }: Player, main: HTMLElement, beside: HTMLElement | null): Omit<Besides, 'keys'> {
  main.className = 'embedded'
  main.setAttribute('aria-label', lesson.title)
  if (beside) beside.hidden = true
  return {
    wide: null,
    panel: beside && (() => !beside.toggleAttribute('hidden')),
  }
}

function onItsPage({ lesson }: Player, main: HTMLElement, beside: HTMLElement | null): Omit<Besides, 'keys'> {
  main.className = beside ? 'lesson' : 'lesson alone'
  main.style.setProperty('--ratio', String(lesson.width / lesson.height))
  const wide = (on: boolean) => {
    main.classList.toggle('wide', on)
    keep('wide', on ? 'yes' : 'no')
    return on
  }
  if (beside && kept('wide') === 'yes') wide(true)
  return { wide: beside && (() => wide(!main.classList.contains('wide'))), panel: null }
}

function page(player: Player, title: HTMLElement, theStage: HTMLElement, below: HTMLElement[], beside: HTMLElement | null, lines: HTMLElement[]) {
  return [
    element('div', { class: 'picture' }, theStage, ...below),
    element('div', { class: 'words' }, languageChoice(player.language), title, description(player), ...doing(player), terms(player)),
    element('div', { class: 'beside' }, beside, ...lines),
  ]
}

function header({ lesson, place }: Player) {
  if (!place) return null
  return element(
    'header',
    { class: 'place' },
    element('strong', {}, place.house),
    element('span', {}, place.where),
    place.allLessons && !leadsNowhere(lesson) ? element('a', { href: place.allLessons }, 'All lessons') : null,
  )
}

/** The lessons before and behind this one, where it stands in a course. */
function onward({ lesson, place }: Player) {
  if (!place || leadsNowhere(lesson) || (!place.previous && !place.next)) return null
  const to = (rel: string, words: string, link: Place['next']) =>
    link ? element('a', { href: link.address, rel }, element('span', {}, words), element('bdi', {}, link.title)) : element('span', {})
  return element(
    'nav',
    { class: 'onward', 'aria-label': 'Other lessons' },
    to('prev', 'Previous lesson', place.previous),
    to('next', 'Next lesson', place.next),
  )
}

function memoryOf(lesson: Lesson): Memory {
  if (lesson.runtime) {
    const open = parts().find((part) => part.runtimes?.[lesson.runtime as string])?.runtimes?.[lesson.runtime]
    return open ? open(lesson) : nowhere('A part of the player cannot be loaded: the lesson plays, and nothing is recorded. Load the page again.')
  }
  return lesson.reportTo ? onServer(lesson.reportTo, lesson.key) : inBrowser(lesson.key, lesson)
}

const data = JSON.parse(document.getElementById('wexel-lesson')?.textContent ?? 'null') as PageData | null
const root = document.getElementById('wexel')
if (data && root) start(data.lesson, data.place, root)
const course = document.querySelector('.course')
if (course) {
  // Also where the browser goes back to the page as it was.
  addEventListener('pageshow', () => showCourse(course))
  showCourse(course)
}
