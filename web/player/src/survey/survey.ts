import { element } from '../element'
import type { Stands } from '../parts'
import type { Player } from '../player'
import { form } from './form'

/** Asks at the lesson's end what somebody thinks of it, once, and never before questions that stand there too. */
export function survey(player: Player): Stands | undefined {
  const { lesson, memory, video, over } = player
  const { survey: asks } = lesson
  if (!asks || !memory.takeSurvey) return undefined
  const take = memory.takeSurvey.bind(memory)
  let sent = true
  let offered = false
  let close: () => void = () => undefined
  let open: HTMLElement | null = null
  /** What was filled in and not sent stays. */
  let made: ReturnType<typeof form> | null = null

  const line = element('p', { class: 'fine', hidden: true })
  const tell = () => {
    line.hidden = false
    line.replaceChildren(
      ...(sent
        ? ['You said what you think of this lesson.']
        : [element('button', { type: 'button', class: 'link', click: stand }, 'Say what you think of this lesson')]),
    )
  }
  function stand() {
    if (open || over.childElementCount > 0) return
    offered = true
    video.pause()
    const before = document.activeElement
    close = () => {
      open?.remove()
      open = null
      if (before instanceof HTMLElement && before !== document.body && before.isConnected) before.focus({ preventScroll: true })
      else document.querySelector<HTMLElement>('#wexel-stage media-play-button')?.focus({ preventScroll: true })
    }
    made ??= form(asks as NonNullable<typeof asks>, {
      async send(values) {
        const refused = await take(values)
        sent = refused === null
        tell()
        return refused
      },
      close: () => close(),
    })
    open = made.element
    over.append(open)
    made.focus()
  }

  player.follow('known', (known) => {
    sent = known.surveyed ?? false
    tell()
  })
  const atEnd = () => video.ended && !sent && !offered && stand()
  video.addEventListener('ended', atEnd)
  player.follow('freed', atEnd)
  // Whoever plays it again is not held by a form.
  video.addEventListener('play', () => {
    open?.remove()
    open = null
  })
  return { line }
}
