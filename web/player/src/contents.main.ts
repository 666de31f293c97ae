import { addChapters } from './contents/chapters'
import { contents } from './contents/contents'
import { addPart } from './parts'

addPart({
  start(player) {
    addChapters(player)
    return { panel: { name: 'Contents', content: contents(player) } }
  },
})
