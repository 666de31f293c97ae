import { element } from '../element'
import type { Player } from '../player'
import type { Area } from './outline'

/** What an action may do with the page. */
export interface Acting {
  player: Player
  /** Shows a text beside the area until it is closed. */
  say(text: string): void
  /** What stood waiting goes on. */
  goOn(): void
}

/** What is clicked: a link where a page is opened, a button for all else. */
type Clickable = (area: Area, acting: Acting) => HTMLElement

const button = (click: (area: Area, acting: Acting) => void): Clickable => {
  return (area, acting) => element('button', { type: 'button', click: () => click(area, acting) })
}

/** An action a kind, by the names of Wexel.Core.Overlays.Actions; one that leads to a section is told the time of it. */
export const actions: Record<string, Clickable> = {
  time: button(({ does }, { player }) => player.playFrom(does.to ?? 0)),
  text: button(({ does }, { player, say }) => {
    player.video.pause()
    say(does.says ?? '')
  }),
  link: ({ does }, { player }) => element('a', { href: does.address, target: '_blank', rel: 'noopener noreferrer', click: () => player.video.pause() }),
  wait: button((_, { goOn }) => goOn()),
}
