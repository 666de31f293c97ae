import { isDone } from '../goal'
import { lay } from '../layer'
import type { Question } from '../lesson'
import { type AnswerKnown, newName } from '../memory'
import { now, type Player } from '../player'
import { type Box, box, type Outcome } from './box'
import { afterTries, judge } from './judge'

/** How far past a question's moment the picture may be when it stops there, in milliseconds: a frame or two. */
const near = 60

/**
 * Stops the picture where something is asked, and lets it go on. All of it follows the video's own events, so that whatever moves the picture (keys, contents,
 * the address, speed) comes by here. What must be answered is not passed; what was answered or passed over is not asked again.
 */
export function asking(player: Player, changed: () => void) {
  const { lesson, video, memory } = player
  const known = new Map<string, AnswerKnown>()
  const passedOver = new Set<string>()
  let ready = false
  let open: { question: Question; box: Box; before: Element | null; played: boolean } | null = null
  let last = -1

  const waits = (question: Question) => !known.has(question.id) && !passedOver.has(question.id)
  const learn = (answers: readonly AnswerKnown[]) => {
    for (const answer of answers) known.set(answer.question, answer)
    changed()
  }
  player.follow('known', ({ answers }) => {
    learn(answers ?? [])
    ready = true
    last = now(player) - 1
    gate()
  })
  memory.judgedLater?.((answers) => {
    learn(answers)
    player.tell('answers', answers)
  })

  /** The first question before a moment that must be answered and was not. */
  const inTheWay = (ms: number) => lesson.questions.find((q) => q.must && !known.has(q.id) && q.at < ms - near)
  const gate = () => {
    const question = ready && inTheWay(now(player))
    if (question && open?.question !== question) stand(question)
    return Boolean(question)
  }

  function check() {
    if (!ready || open || video.seeking) return
    const here = now(player)
    const due = lesson.questions.find((q) => waits(q) && q.at > last && q.at <= here + 8)
    if (due) stand(due)
    else if (!gate()) last = here
  }
  const frames = () => {
    check()
    if (!video.paused && !video.ended) requestAnimationFrame(frames)
  }
  video.addEventListener('playing', frames)
  // A page that is not looked at draws no frames.
  video.addEventListener('timeupdate', check)
  video.addEventListener('ended', () => {
    const due = ready && !open && lesson.questions.find((q) => waits(q) && q.at >= lesson.length - 500)
    if (due) stand(due)
  })
  video.addEventListener('play', () => {
    if (!open) return
    video.pause()
    open.box.focus()
  })
  video.addEventListener('seeking', () => {
    const there = now(player)
    if (open) {
      if (Math.abs(there - open.question.at) <= near) return
      if (open.question.must && !known.has(open.question.id) && there > open.question.at) return player.go(open.question.at)
      // Whoever goes elsewhere comes back to it, unless it was answered.
      close(false)
    }
    last = there - 1
    gate()
  })

  /** Stops at a question and asks it; of several at one moment the first has stopped the picture already. */
  function stand(question: Question, played = !video.paused) {
    close(false)
    video.pause()
    // At the very end the picture stays where it is.
    if (Math.abs(now(player) - question.at) > 1 && question.at < lesson.length - 500) player.go(question.at)
    const before = document.activeElement
    const number = `Question ${lesson.questions.indexOf(question) + 1} of ${lesson.questions.length}`
    const made = box(question, number, known.get(question.id), {
      answer: (values, took) => answer(question, values, took),
      goOn: () => close(true),
      again() {
        close(false)
        if (question.again !== null) player.playFrom(question.again)
      },
    })
    open = { question, box: made, before, played }
    player.over.append(made.element)
    if (made.over) lay(player, made.over)
    made.focus()
  }

  /** @param goOn Whether the learner has done with it for now, and the lesson goes on. */
  function close(goOn: boolean) {
    if (!open) return
    const { question, box, before, played } = open
    open = null
    box.element.remove()
    box.over?.remove()
    if (goOn) {
      if (!known.has(question.id)) passedOver.add(question.id)
      last = question.at - 1
      const next = lesson.questions.find((q) => waits(q) && Math.abs(q.at - question.at) <= 1)
      if (next) return stand(next, played)
      last = question.at
      if (played && question.at < lesson.length - 500) video.play().catch(() => undefined)
    }
    if (before instanceof HTMLElement && before !== document.body && before.isConnected) before.focus({ preventScroll: true })
    else document.querySelector<HTMLElement>('#wexel-stage media-play-button')?.focus({ preventScroll: true })
    if (goOn) player.tell('freed', null)
  }

  async function answer(question: Question, values: string[], took: number): Promise<Outcome> {
    const given = { event: newName(), question: question.id, answer: values, took }
    const before = known.get(question.id)
    const { key } = question
    if (!key) {
      const judged = (await memory.judge?.(given)) ?? 'later'
      if (judged === 'later') {
        const waiting = { question: question.id, tries: (before?.tries ?? 0) + 1, share: before?.share ?? 0, right: before?.right ?? false, answer: values }
        learn([waiting])
        player.tell('answers', [waiting])
        return { later: true }
      }
      learn(judged.answers)
      player.tell('answers', judged.answers)
      const now = known.get(question.id) ?? { question: question.id, tries: question.tries, share: 0, right: false, answer: values }
      return { later: false, right: judged.right, share: judged.share, says: judged.says, solution: judged.solution, known: now }
    }
    const grade = judge(key.judge, values)
    const tries = (before?.tries ?? 0) + 1
    const now = {
      question: question.id,
      tries,
      share: Math.max(before?.share ?? 0, afterTries(grade.share, key.penalty, tries)),
      right: (before?.right ?? false) || grade.right,
      answer: values,
    }
    learn([now])
    memory.record?.({
      ...given,
      kind: question.form.kind,
      correct: key.judge.responses.map((r) => r.correct),
      options: (question.form.options ?? []).map((o) => o.id),
      targets: (question.form.targets ?? []).map((t) => t.id),
      right: grade.right,
      points: question.points,
    })
    player.tell('answers', [now])
    const own = grade.right ? key.right : key.wrong
    const solution = !now.right && isDone(now, question.tries) ? key.answer : null
    return { later: false, right: grade.right, share: grade.share, says: [...grade.replies, ...(own ? [own] : [])], solution, known: now }
  }

  return {
    known,
    /** Asks a question again, or shows how it was answered. */
    show(question: Question) {
      passedOver.delete(question.id)
      video.pause()
      player.go(question.at)
      stand(question)
    },
  }
}
