import { element } from './element'
import type { Captions, Lesson } from './lesson'

const remembered = 'wexel-captions'

/** The language that was chosen last, on any page from the same place. */
function lastChosen(): string | null {
  try {
    return localStorage.getItem(remembered)
  } catch {
    // A page from disk, or one inside another, may have no place to keep it.
    return null
  }
}

/** Which track shows first: in the language that was chosen last, else in one that the browser asks for, else the first. */
export function firstShown(tracks: readonly { language: string }[], chosen: string | null, asked: readonly string[]): number {
  const plain = (tag: string) => tag.toLowerCase().split('-')[0]
  for (const want of [chosen, ...asked]) {
    if (!want) continue
    const exactly = tracks.findIndex((t) => t.language.toLowerCase() === want.toLowerCase())
    if (exactly >= 0) return exactly
    const nearly = tracks.findIndex((t) => plain(t.language) === plain(want))
    if (nearly >= 0) return nearly
  }
  return 0
}

/** A language by its own name: español (España). Two tracks of one language are numbered. */
export function namesOf(tracks: readonly { language: string }[]): string[] {
  const own = (tag: string) => {
    try {
      return new Intl.DisplayNames([tag], { type: 'language' }).of(tag) ?? tag
    } catch {
      return tag
    }
  }
  return tracks.map(({ language }, i) => {
    const before = tracks.slice(0, i).filter((t) => t.language === language).length
    return before > 0 ? `${own(language)} ${before + 1}` : own(language)
  })
}

function cueOf({ span, text, markup, atTop, id }: Captions['cues'][number]) {
  const shown = new VTTCue(span.start / 1000, span.end / 1000, '')
  shown.id = id ?? ''
  shown.text = markup ?? text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')
  if (atTop) shown.line = 0
  return shown
}

/** Puts the captions on a video: tracks are made here and not loaded, since a page that was opened from disk may load no file beside it. */
export function addCaptions(video: HTMLVideoElement, { captions }: Lesson) {
  const names = namesOf(captions)
  const tracks = captions.map(({ kind, language, cues }, i) => {
    const track = video.addTextTrack(kind === 'translation' ? 'subtitles' : 'captions', captions.length > 1 ? names[i] : 'Captions', language)
    for (const cue of cues) track.addCue(cueOf(cue))
    return track
  })
  const first = firstShown(captions, lastChosen(), navigator.languages)
  for (const [i, track] of tracks.entries()) track.mode = i === first ? 'showing' : 'disabled'
}

/** Which of several tracks is shown; nothing where there is one or none. Whoever switches captions off and on gets the same again. */
export function choiceOfCaptions(video: HTMLVideoElement, { captions }: Lesson): HTMLElement | null {
  if (captions.length < 2) return null
  const tracks = [...video.textTracks].filter((t) => t.kind === 'captions' || t.kind === 'subtitles')
  const choice = element(
    'select',
    { 'aria-label': 'Language of the captions' },
    ...namesOf(captions).map((name, i) => element('option', { value: String(i), lang: captions[i].language }, name)),
  )
  let chosen = Math.max(
    0,
    tracks.findIndex((t) => t.mode === 'showing'),
  )
  choice.value = String(chosen)
  const show = (index: number) => {
    for (const [i, track] of tracks.entries()) {
      const mode = i === index ? 'showing' : 'disabled'
      if (track.mode !== mode) track.mode = mode
    }
  }
  choice.addEventListener('change', () => {
    chosen = Number(choice.value)
    show(chosen)
    try {
      localStorage.setItem(remembered, captions[chosen].language)
    } catch {
      // It holds for this page then.
    }
  })
  // The button beside it knows only on and off, and may switch on another one.
  video.textTracks.addEventListener('change', () => {
    if (tracks.some((t, i) => t.mode === 'showing' && i !== chosen)) show(chosen)
  })
  return choice
}
