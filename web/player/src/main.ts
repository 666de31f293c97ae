import './player.css'
import { about } from './about'
import { addCaptions } from './captions'
import { judge } from './completion'
import { contents } from './contents'
import { asSwitch, keyList, keys, stage } from './controls'
import { showCourse } from './course'
import { element } from './element'
import { type Lesson, type PageData, type Place, sectionAt } from './lesson'
import { inBrowser, onServer } from './memory'
import { findApi, inLearningSystem } from './scorm12'
import { play } from './source'
import { clock, placeIn } from './time'
import { watching } from './watching'

const reportEveryMs = 10_000
const quarters = ['', 'A quarter of the lesson is seen.', 'Half of the lesson is seen.', 'Three quarters of the lesson are seen.']

function start(lesson: Lesson, place: Place | null, root: HTMLElement) {
  const video = element('video', { slot: 'media', poster: lesson.poster?.address, preload: 'metadata', playsinline: true, 'aria-label': lesson.title })
  video.style.aspectRatio = `${lesson.width} / ${lesson.height}`
  addCaptions(video, lesson)
  addChapters(video, lesson)

  const memory = memoryOf(lesson)
  let known: [number, number][] = []
  let completeBefore = false
  let ready = false
  let leftOff = 0
  let played = false
  const fresh = watching(video, () => tell())
  const all = () => {
    const judged = judge([...known, ...fresh], lesson.length, lesson.completePercent)
    return { ...judged, complete: judged.complete || completeBefore }
  }
  const go = (ms: number) => {
    video.currentTime = ms / 1000
  }

  const playFrom = (ms: number) => {
    go(ms)
    video.play().catch(() => undefined)
  }
  const table = lesson.sections.length > 0 && !lesson.embedded ? contents(lesson, playFrom) : undefined
  const status = element('p', { class: 'status' })
  // Each per cent is seen; only quarters are spoken.
  const spoken = element('p', { class: 'spoken', role: 'status' })
  const back = element('p', { class: 'back', hidden: true })
  const kept = element('p', { class: 'keys' })
  function tell() {
    const attendance = all()
    const text = attendance.complete
      ? 'You have completed this lesson.'
      : `You have seen ${Math.floor(attendance.share * 100)} % of this lesson. It is done at ${lesson.completePercent} %.`
    if (status.textContent !== text) status.textContent = text
    const said = attendance.complete ? 'The lesson is completed.' : (quarters[Math.floor(attendance.share * 4)] ?? '')
    if (spoken.textContent !== said) spoken.textContent = said
    table?.show(video.currentTime * 1000, attendance.watched)
  }
  const failed = element('p', { class: 'failed', role: 'alert', hidden: true })
  const fail = (sentence: string) => {
    failed.hidden = false
    failed.textContent = sentence
  }
  video.addEventListener('error', () => fail('The video cannot be loaded. Load the page again; if that does not help, tell the person who gave you the link.'))
  play(video, lesson.video, fail)

  const theStage = stage(lesson, video)
  keys(video, theStage)
  root.replaceChildren(
    ...(lesson.embedded
      ? [element('main', { class: 'embedded', 'aria-label': lesson.title }, theStage, failed)]
      : [
          place
            ? element(
                'header',
                { class: 'place' },
                element('strong', {}, place.house),
                element('span', {}, place.where),
                place.allLessons ? element('a', { href: place.allLessons }, 'All lessons') : null,
              )
            : null,
          element(
            'main',
            { class: table ? 'lesson' : 'lesson alone' },
            element(
              'div',
              { class: 'picture' },
              theStage,
              failed,
              back,
              element('h1', { dir: 'auto', lang: lesson.language }, lesson.title),
              ...about(lesson, playFrom),
            ),
            element('div', { class: 'beside' }, table?.nav, status, spoken, keyList(), kept),
          ),
          place ? onward(place) : null,
        ].filter((node): node is HTMLElement => node !== null)),
  )

  asSwitch(theStage)

  const save = (leaving: boolean) => {
    if (!ready) return
    const { watched, complete } = all()
    // A page on which nothing was played knows no better place than the one that it was told.
    memory.save({ watched, position: played ? Math.round(video.currentTime * 1000) : leftOff, complete }, leaving, played)
    sayKept()
  }
  const sayKept = () => {
    const text = memory.kept() ?? ''
    if (kept.textContent !== text) kept.textContent = text
  }
  let lastReport = 0
  let toldComplete = false
  let section = -1
  video.addEventListener('timeupdate', () => {
    tell()
    const nowComplete = !toldComplete && all().complete
    if (nowComplete) toldComplete = true
    const nowIn = sectionAt(lesson.sections, video.currentTime * 1000)
    const entered = !video.paused && nowIn !== section
    section = nowIn
    if (nowComplete || entered || (!video.paused && performance.now() - lastReport > reportEveryMs)) {
      lastReport = performance.now()
      save(false)
    }
  })
  video.addEventListener('playing', () => {
    played = true
  })
  for (const event of ['pause', 'ended']) video.addEventListener(event, () => save(false))
  addEventListener('pagehide', () => save(true))
  // A page that comes back as it was has taken its leave of the learning system already.
  addEventListener('pageshow', (event) => {
    if (event.persisted && lesson.runtime) location.reload()
  })
  addEventListener('hashchange', () => {
    const at = placeIn(location.hash)
    if (at !== undefined) go(at)
  })

  memory.load().then((progress) => {
    known = progress.watched
    leftOff = progress.position
    completeBefore = progress.complete ?? false
    toldComplete = all().complete
    ready = true
    sayKept()
    const asked = placeIn(location.hash)
    if (asked !== undefined) go(asked)
    else if (progress.position > 5000 && progress.position < lesson.length - 5000 && video.currentTime < 1) {
      go(progress.position)
      back.hidden = false
      back.replaceChildren(
        `You left off at ${clock(progress.position)}. `,
        element(
          'button',
          {
            type: 'button',
            click: () => {
              go(0)
              back.hidden = true
            },
          },
          'Start from the beginning',
        ),
      )
    }
    tell()
  })
}

/** The lessons before and behind this one, where it stands in a course. */
function onward({ previous, next }: Place) {
  if (!previous && !next) return null
  return element(
    'nav',
    { class: 'onward', 'aria-label': 'Other lessons' },
    previous
      ? element('a', { href: previous.address, rel: 'prev' }, element('span', {}, 'Previous lesson'), element('bdi', {}, previous.title))
      : element('span', {}),
    next ? element('a', { href: next.address, rel: 'next' }, element('span', {}, 'Next lesson'), element('bdi', {}, next.title)) : null,
  )
}

function memoryOf(lesson: Lesson) {
  if (lesson.runtime === 'scorm12') return inLearningSystem(findApi(window), lesson.length, () => performance.now())
  return lesson.reportTo ? onServer(lesson.reportTo, lesson.key) : inBrowser(lesson.key)
}

function addChapters(video: HTMLVideoElement, lesson: Lesson) {
  if (lesson.sections.length === 0) return
  const chapters = video.addTextTrack('chapters', 'Contents', lesson.language)
  lesson.sections.forEach((section, i) => {
    const end = lesson.sections[i + 1]?.at ?? lesson.length
    if (end > section.at) chapters.addCue(new VTTCue(section.at / 1000, end / 1000, section.title))
  })
  chapters.mode = 'hidden'
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
