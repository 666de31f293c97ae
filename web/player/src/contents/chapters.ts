import type { Player } from '../player'

/** The contents as chapters of the video, for whatever else shows them. */
export function addChapters({ lesson, video, language }: Player) {
  const chapters = video.addTextTrack('chapters', 'Contents', lesson.language)
  const cues = lesson.sections.map((section, i) => new VTTCue(section.at / 1000, (lesson.sections[i + 1]?.at ?? lesson.length) / 1000, section.title))
  for (const cue of cues) if (cue.endTime > cue.startTime) chapters.addCue(cue)
  language.follow(({ sections }) => {
    for (const [i, { text }] of sections.entries()) cues[i].text = text
  })
  chapters.mode = 'hidden'
}
