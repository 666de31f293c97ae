import './over.css'
import './questions/questions.css'
import { addPart } from './parts'
import { asking } from './questions/asking'
import { list } from './questions/list'

addPart({
  start(player) {
    const asks = asking(player, () => shown?.tell())
    const shown = list(player, asks.known, asks.show)
    shown.tell()
    return { panel: { name: 'Questions', content: shown.element } }
  },
})
