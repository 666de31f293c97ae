import type { Schemas } from '../app/api'

export type Under = Schemas['UnderPlan']

/**
 * Plays what lies under a lesson's voice by the numbers by which renditions are mixed, from a moment of the lesson on. With a context that only computes
 * it comes to the samples themselves.
 * @param from When the lesson is, in milliseconds.
 * @param when When that is in the context's time, in seconds.
 * @returns Ends it.
 */
export function schedule(context: BaseAudioContext, to: AudioNode, under: Under, buffers: ReadonlyMap<string, AudioBuffer>, from: number, when: number) {
  const time = (at: number) => when + (at - from) / 1000
  const started: AudioBufferSourceNode[] = []
  for (const bed of under.beds) {
    const buffer = buffers.get(bed.sound)
    const last = bed.gains.at(-1)
    if (!buffer || !last || last.at <= from) continue
    const volume = context.createGain()
    volume.connect(to)
    volume.gain.setValueAtTime(gainAt(bed.gains, from) * under.gain, when)
    for (const [i, point] of bed.gains.entries()) {
      if (point.at <= from) continue
      if (i === 0) volume.gain.setValueAtTime(point.gain * under.gain, time(point.at))
      else volume.gain.linearRampToValueAtTime(point.gain * under.gain, time(point.at))
    }
    for (const piece of bed.pieces) {
      const ends = piece.at + piece.length
      if (ends <= from) continue
      const begins = Math.max(piece.at, from)
      const source = context.createBufferSource()
      source.buffer = buffer
      const turn = context.createGain()
      source.connect(turn).connect(volume)
      if (piece.comes > 0 && from < piece.at + piece.comes) {
        turn.gain.setValueAtTime((begins - piece.at) / piece.comes, time(begins))
        turn.gain.linearRampToValueAtTime(1, time(piece.at + piece.comes))
      }
      if (piece.goes > 0) {
        turn.gain.setValueAtTime(1, Math.max(time(begins), time(ends - piece.goes)))
        turn.gain.linearRampToValueAtTime(0, time(ends))
      }
      source.start(time(begins), (piece.from + begins - piece.at) / 1000, (ends - begins) / 1000)
      started.push(source)
    }
  }
  return () => {
    for (const source of started) source.stop()
  }
}

/** By what a sound is multiplied at a moment: straight lines between points, nothing outside of them. */
export function gainAt(points: Under['beds'][number]['gains'], at: number): number {
  const next = points.findIndex((p) => p.at >= at)
  if (next < 0) return 0
  const to = points[next]
  if (next === 0) return to.at === at ? to.gain : 0
  const before = points[next - 1]
  return before.gain + ((to.gain - before.gain) * (at - before.at)) / (to.at - before.at)
}

/** When the lesson is where a recording is: what is cut before it takes no time. */
export const lessonTime = (ms: number, cuts: readonly { start: number; end: number }[]) =>
  cuts.reduce((at, cut) => at - Math.max(0, Math.min(cut.end, ms) - cut.start), ms)
