import { addCaptions } from './captions/captions'
import { transcript } from './captions/transcript'
import { addPart } from './parts'

addPart({
  captions: ({ video, lesson }) => addCaptions(video, lesson),
  start: (player) => ({ panel: { name: 'Transcript', content: transcript(player, player.captions) } }),
})
