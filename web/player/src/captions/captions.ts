import { element } from '../element'
import { keep, kept } from '../kept'
import type { Captions, Lesson } from '../lesson'
import { base, cuePlaces, cueSizes, firstShown, namesOf, type ShownCaptions } from '../tracks'

function cueOf({ span, text, markup, id }: Captions['cues'][number]) {
  const shown = new VTTCue(span.start / 1000, span.end / 1000, '')
  shown.id = id ?? ''
  shown.text = markup ?? text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')
  return shown
}

const one = <T extends string>(of: readonly T[], value: string | null, otherwise: T) => of.find((o) => o === value) ?? otherwise

/** Puts the captions on a video: tracks are made here and not loaded, since a page that was opened from disk may load no file beside it. */
export function addCaptions(video: HTMLVideoElement, { captions }: Lesson): ShownCaptions {
  const names = namesOf(captions)
  const tracks = captions.map(({ kind, language, cues, draft }, i) => {
    const track = video.addTextTrack(kind === 'translation' ? 'subtitles' : 'captions', captions.length > 1 || draft ? names[i] : 'Captions', language)
    const made = cues.map(cueOf)
    for (const cue of made) track.addCue(cue)
    return { track, made }
  })
  const under = element('div', { class: 'under', hidden: true, dir: 'auto' })
  const listeners: (() => void)[] = []
  let size = one(cueSizes, kept('cue-size'), 'usual')
  let place = one(cuePlaces, kept('cue-place'), 'low')
  let last = firstShown(captions, kept('captions'), navigator.languages)
  let chosen = captions.length === 0 || kept('captions-off') === 'yes' ? -1 : last

  const mode = () => (place === 'under' ? 'hidden' : 'showing')
  const show = () => {
    for (const [i, { track }] of tracks.entries()) {
      const wanted = i === chosen ? mode() : 'disabled'
      if (track.mode !== wanted) track.mode = wanted
    }
    under.hidden = place !== 'under' || chosen < 0
    video.closest('.stage')?.setAttribute('data-cues', size)
    drawUnder()
  }
  const stand = () => {
    for (const [i, { made }] of tracks.entries())
      for (const [k, cue] of made.entries()) cue.line = place === 'high' || (place === 'low' && captions[i].cues[k].atTop) ? 0 : 'auto'
  }
  const drawUnder = () => {
    if (under.hidden) return
    under.lang = captions[chosen].language
    const active = [...(tracks[chosen].track.activeCues ?? [])] as VTTCue[]
    under.replaceChildren(...active.map((cue) => element('p', {}, cue.getCueAsHTML())))
  }
  for (const { track } of tracks) track.addEventListener('cuechange', drawUnder)
  const tell = () => {
    for (const listener of listeners) listener()
  }
  const inLanguage = (language: string) => {
    const exactly = captions.findIndex((c) => c.language === language)
    return exactly >= 0 ? exactly : captions.findIndex((c) => base(c.language) === base(language))
  }
  const choose = (index: number) => {
    chosen = index
    if (index >= 0) {
      last = index
      keep('captions', captions[index].language)
    }
    keep('captions-off', index < 0 ? 'yes' : 'no')
    show()
    tell()
  }
  // A browser's own menu, as in its small window, may choose too.
  video.textTracks.addEventListener('change', () => {
    const shows = tracks.findIndex(({ track }) => track.mode === 'showing')
    const wanted = place === 'under' ? -1 : chosen
    if (shows === wanted) return
    if (shows >= 0 || place !== 'under') choose(shows)
  })
  stand()
  show()
  return {
    names,
    draft: (index) => captions[index].draft === true,
    under,
    chosen: () => chosen,
    choose,
    inLanguage,
    speak(language) {
      const index = inLanguage(language)
      if (index < 0) return
      if (chosen >= 0) choose(index)
      else last = index
    },
    toggle: () => choose(chosen < 0 ? last : -1),
    size: () => size,
    setSize(wanted) {
      size = wanted
      keep('cue-size', size)
      show()
    },
    place: () => place,
    setPlace(wanted) {
      place = wanted
      keep('cue-place', place)
      stand()
      show()
    },
    changed(listener) {
      listeners.push(listener)
    },
  }
}
