import { judge, playedAgain, type Range } from './completion'
import { element } from './element'
import { goalInWords, scoreOf, standing } from './goal'
import { sectionAt } from './lesson'
import { type Answers, together } from './memory'
import { now, type Player } from './player'
import { clock, placeIn } from './time'
import { watching } from './watching'

const reportEveryMs = 10_000
const quarters = ['', 'A quarter of the lesson is seen.', 'Half of the lesson is seen.', 'Three quarters of the lesson are seen.']

/** What was seen of the lesson: known from earlier, noted while it plays, said on the page, and reported to where it is kept. */
export function attendance(player: Player) {
  const { lesson, video, memory } = player
  let known: Range[] = []
  let completeBefore = false
  let passedBefore: boolean | null = null
  let answers: Answers = []
  let ready = false
  let leftOff = 0
  let played = false
  const fresh = watching(video, () => tell())
  const all = () => {
    const judged = judge([...known, ...fresh], lesson.length, lesson.completePercent)
    const stands = standing(lesson, judged.complete, answers)
    return { ...judged, complete: stands.complete || completeBefore, passed: passedBefore === true ? true : stands.passed }
  }

  const status = element('p', { class: 'status' })
  // Each per cent is seen; only quarters are spoken.
  const spoken = element('p', { class: 'spoken', role: 'status' })
  const where = element('p', { class: 'fine' })
  const back = element('p', { class: 'back', hidden: true })
  const say = (line: HTMLElement, text: string) => {
    if (line.textContent !== text) line.textContent = text
  }
  function tell() {
    const seen = all()
    say(
      status,
      seen.complete
        ? `You have completed this lesson${outcome(seen.passed)}.`
        : `You have seen ${Math.floor(seen.share * 100)} % of this lesson${answered()}. ${goalInWords(lesson)}`,
    )
    say(spoken, seen.complete ? 'The lesson is completed.' : (quarters[Math.floor(seen.share * 4)] ?? ''))
    player.tell('watched', seen.watched)
  }

  const outcome = (passed: boolean | null) => {
    const { raw, max } = scoreOf(lesson, answers)
    const points = max > 0 ? `${passed === null ? ' with' : ':'} ${Number(raw.toFixed(2))} of ${max} points` : ''
    return passed === null ? points : `, and ${passed ? 'passed' : 'not passed'}${points}`
  }
  const answered = () => (lesson.questions.length > 0 ? `, answered ${answers.length} of ${lesson.questions.length}` : '')

  const save = (leaving: boolean) => {
    if (!ready) return
    const { watched, complete, passed } = all()
    const { raw, max } = scoreOf(lesson, answers)
    const score = max > 0 ? raw / max : undefined
    // A page on which nothing was played knows no better place than the one that it was told.
    memory.save(
      { watched, again: playedAgain(known, fresh, lesson.length), position: played ? Math.round(now(player)) : leftOff, complete, passed, answers, score },
      leaving,
      played,
    )
    say(where, memory.kept() ?? '')
  }
  let lastReport = 0
  let toldComplete = false
  let section = -1
  video.addEventListener('timeupdate', () => {
    tell()
    const nowComplete = !toldComplete && all().complete
    if (nowComplete) toldComplete = true
    const nowIn = sectionAt(lesson.sections, now(player))
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
  player.follow('answers', (given) => {
    answers = together(answers, given)
    played = true
    tell()
    save(false)
  })
  for (const event of ['pause', 'ended']) video.addEventListener(event, () => save(false))
  addEventListener('pagehide', () => save(true))
  // A page that comes back as it was has taken its leave of the learning system already.
  addEventListener('pageshow', (event) => {
    if (event.persisted && lesson.runtime) location.reload()
  })

  memory.load().then((progress) => {
    known = progress.watched
    leftOff = progress.position
    completeBefore = progress.complete ?? false
    passedBefore = progress.passed ?? null
    answers = progress.answers ?? []
    toldComplete = all().complete
    ready = true
    const not = new Set(progress.notAsked ?? [])
    if (not.size > 0) lesson.questions = lesson.questions.filter((q) => !not.has(q.id))
    player.tell('known', progress)
    say(where, memory.kept() ?? '')
    const asked = placeIn(location.hash)
    // Whoever chose a moment on one of our pages wants it played; browsers allow that where they were pressed.
    if (asked !== undefined) new URLSearchParams(location.hash.slice(1)).has('play') ? player.playFrom(asked) : player.go(asked)
    else if (leftOff > 5000 && leftOff < lesson.length - 5000 && video.currentTime < 1) goOn()
    tell()
  })
  function goOn() {
    player.go(leftOff)
    back.hidden = false
    const again = () => {
      player.go(0)
      back.hidden = true
    }
    back.replaceChildren(`You left off at ${clock(leftOff)}. `, element('button', { type: 'button', class: 'link', click: again }, 'Start from the beginning'))
  }
  return { back, lines: [status, spoken, where] }
}
