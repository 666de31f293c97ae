import './over.css'
import './overlays/overlays.css'
import { element } from './element'
import { lay } from './layer'
import { areas } from './overlays/areas'
import { notes } from './overlays/notes'
import { addPart } from './parts'

addPart({
  start(player) {
    const layer = element('div', { class: 'over-picture overlays' })
    // Where the picture stands is known once it is on the page.
    player.follow('known', () => lay(player, layer))
    notes(player, layer)
    areas(player, layer)
    return undefined
  },
})
