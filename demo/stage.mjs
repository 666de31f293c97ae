import { writeFileSync } from 'node:fs'
import { join } from 'node:path'

const frame = 1000 / 30

/** Numbers that look as if nobody had thought of them, and are the same at every recording. */
function dice(seed) {
  let state = [...seed].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) >>> 0, 7)
  return () => {
    state = (state * 1664525 + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

/** A page on which a lesson is played: pictures are taken of what changed, each with the time from which it stands. */
export class Stage {
  /** @param filmed Whether pictures are taken; without, only the times are there. */
  static async open(page, folder, seed, filmed = true) {
    const stage = new Stage(page, folder, seed)
    stage.filmed = filmed
    stage.lens = await page.context().newCDPSession(page)
    // In the screen's own pixels: without a clip, pictures come in the page's.
    stage.seen = { x: 0, y: 0, ...page.viewportSize(), scale: await page.evaluate(() => devicePixelRatio) }
    await stage.point(stage.x, stage.y)
    await stage.look()
    await stage.take()
    return stage
  }

  constructor(page, folder, seed) {
    Object.assign(this, { page, folder, random: dice(seed), now: 0, shots: [], pages: [], x: 700, y: 540 })
  }

  get pictures() {
    return this.shots.length
  }

  between(least, most) {
    return least + (most - least) * this.random()
  }

  wait(ms) {
    this.now = Math.round((this.now + ms) / frame) * frame
  }

  until(ms) {
    if (ms > this.now) this.wait(ms - this.now)
  }

  /** Takes a picture of what is seen from now on. */
  async take() {
    if (!this.filmed) return
    const { data } = await this.lens.send('Page.captureScreenshot', { format: 'png', optimizeForSpeed: true, clip: this.seen })
    if (this.shots.at(-1)?.at === this.now) this.shots.pop()
    const file = join(this.folder, `${this.shots.length}.png`)
    writeFileSync(file, Buffer.from(data, 'base64'))
    this.shots.push({ at: this.now, file })
  }

  async show(what, ...values) {
    await this.page.evaluate(([name, given]) => window.desk[name](...given), [what, values])
    await this.look()
    await this.take()
  }

  /** Writes down when the page is another, with the heading that stands on it. */
  async look() {
    const heading = await this.page.evaluate(() => window.desk.heading())
    if (this.pages.at(-1)?.heading !== heading) this.pages.push({ at: this.now, heading })
  }

  async point(x, y) {
    ;[this.x, this.y] = [x, y]
    await this.page.evaluate(([px, py]) => window.desk.pointer(px, py), [x, y])
  }

  /** Moves the pointer to a place along a thing, as a hand does: in an arc, quick in the middle, longer for a longer way. */
  async to(id, along) {
    const box = await this.page.evaluate((wanted) => {
      const found = document.getElementById(wanted)?.getBoundingClientRect()
      return found && { x: found.x, y: found.y, width: found.width, height: found.height }
    }, id)
    if (!box) throw new Error(`There is no “${id}” on the page to point at.`)
    const inset = Math.min(14, box.width / 4)
    const [toX, toY] = [box.x + inset + (box.width - 2 * inset) * along + this.between(-3, 3), box.y + box.height * this.between(0.45, 0.7)]
    const [fromX, fromY] = [this.x, this.y]
    const way = Math.hypot(toX - fromX, toY - fromY)
    const frames = Math.max(3, Math.round((180 + 190 * Math.log2(1 + way / 60)) / frame))
    const bend = this.between(-0.12, 0.12) * way
    for (let i = 1; i <= frames; i++) {
      const t = i / frames
      const done = t * t * t * (10 - 15 * t + 6 * t * t)
      const off = (Math.sin(Math.PI * done) * bend) / Math.max(1, way)
      this.wait(frame)
      await this.point(fromX + (toX - fromX) * done - (toY - fromY) * off, fromY + (toY - fromY) * done + (toX - fromX) * off)
      if (i === frames) await this.page.evaluate((over) => window.desk.over(over), id)
      await this.take()
    }
    this.wait(this.between(120, 260))
  }

  /** The id of an item of the list that is open. */
  async choiceOf(item) {
    return this.page.evaluate((wanted) => [...document.querySelectorAll('#list div')].find((d) => d.textContent === wanted).id, item)
  }

  /** Writes down which picture stands how long, as ffmpeg's concat demuxer reads it. */
  film() {
    const path = join(this.folder, 'film.txt')
    const stands = this.shots.map((shot, i) => ((this.shots[i + 1]?.at ?? this.now) - shot.at) / 1000)
    const lines = this.shots.map((shot, i) => `file '${shot.file}'\nduration ${stands[i].toFixed(6)}`)
    // The last one is named once more, or it would stand for a moment only.
    writeFileSync(path, `ffconcat version 1.0\n${lines.join('\n')}\nfile '${this.shots.at(-1).file}'\n`)
    return path
  }
}
