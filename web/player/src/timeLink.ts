import { element } from './element'
import type { Player } from './player'
import { clock } from './time'

/** A time that leads to its place, also in an address that can be passed on. */
export function timeLink(player: Player, ms: number, ...more: (Node | null)[]) {
  return element(
    'a',
    {
      class: 'at',
      href: `#t=${ms / 1000}`,
      click: (event) => {
        event.preventDefault()
        history.replaceState(null, '', `#t=${ms / 1000}`)
        player.playFrom(ms)
      },
    },
    clock(ms),
    ...more,
  )
}
