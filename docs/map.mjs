// Draws docs/map.svg from the code: the projects, the folders in each, and which folder uses which.
//   node docs/map.mjs          draws it
//   node docs/map.mjs --check  says whether it is as the code is, and ends with 1 where it is not
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const home = join(dirname(fileURLToPath(import.meta.url)), '..')
const drawn = join(home, 'docs', 'map.svg')

// From top to bottom as they are drawn: whoever stands higher uses who stands lower.
const rows = [['Server', 'Cli'], ['Making', 'Delivering', 'Data'], ['Media'], ['Core']]
const about = {
  Server: 'HTTP, sign-in, background jobs, live news', Cli: 'wexel make', Making: 'lesson to plan, encode, finish, check, page, package', Delivering: 'puts what was made somewhere',
  Data: 'the database', Media: 'runs ffmpeg and ffprobe, reads what they print', Core: 'the job’s rules and computation: no input, no output, no clock',
}

const files = (folder) => readdirSync(folder, { withFileTypes: true, recursive: true }).filter((f) => f.isFile() && f.name.endsWith('.cs') && !/\/(bin|obj|Migrations)(\/|$)/.test(f.parentPath))

/** The folders of a project, each with those of the same project that it uses. */
function folders(project) {
  const root = join(home, 'src', `Wexel.${project}`)
  const names = readdirSync(root, { withFileTypes: true }).filter((d) => d.isDirectory() && !['bin', 'obj', 'Migrations', 'Properties'].includes(d.name)).map((d) => d.name).sort()
  const uses = new Map(names.map((n) => [n, new Set()]))
  for (const file of files(root)) {
    const own = file.parentPath.slice(root.length + 1).split('/')[0]
    if (!uses.has(own)) continue
    for (const [, to] of readFileSync(join(file.parentPath, file.name), 'utf8').matchAll(new RegExp(`using Wexel\\.${project}\\.(\\w+)`, 'g'))) if (uses.has(to) && to !== own) uses.get(own).add(to)
  }
  return uses
}

/** How many folders there are below each at most. There are no circles: `FolderTests` sees to it. */
function floors(uses) {
  const floor = new Map()
  const reckon = (name) => {
    if (!floor.has(name)) floor.set(name, Math.max(-1, ...[...uses.get(name)].map(reckon)) + 1)
    return floor.get(name)
  }
  for (const name of uses.keys()) reckon(name)
  return floor
}

/** Without arrows that others say already: what is used by way of another folder. */
function reduced(uses) {
  const reach = (from, seen = new Set()) => {
    for (const to of uses.get(from)) if (!seen.has(to)) reach(to, seen.add(to))
    return seen
  }
  return new Map([...uses].map(([from, to]) => [from, [...to].filter((t) => ![...to].some((other) => other !== t && reach(other).has(t)))]))
}

const width = 1180
const [pad, gap, high] = [16, 14, 26]
const wide = (name) => Math.round(name.length * 7.6 + 20)
const escape = (text) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')
const out = []
const line = (d, css) => out.push(`<path d="${d}" class="${css}"/>`)
const text = (x, y, words, css) => out.push(`<text x="${x}" y="${y}" class="${css}">${escape(words)}</text>`)
const box = (x, y, w, h, css) => out.push(`<rect x="${x}" y="${y}" width="${w}" height="${h}" class="${css}"/>`)

/** Lays the folders of a project out in lines that fit, the highest floor first. */
function lines(uses, room) {
  const floor = floors(uses)
  const levels = [...new Set(floor.values())].sort((a, b) => b - a).map((f) => [...uses.keys()].filter((n) => floor.get(n) === f))
  return levels.flatMap((names) => {
    const made = [[]]
    let used = 0
    for (const name of names) {
      if (used > 0 && used + wide(name) + gap > room) {
        made.push([])
        used = 0
      }
      made.at(-1).push(name)
      used += wide(name) + gap
    }
    return made
  })
}

function project(name, x, y, w) {
  const uses = folders(name)
  const step = high + 22
  const laid = uses.size === 0 ? [] : lines(uses, w - 2 * pad)
  const h = 52 + laid.length * step
  box(x, y, w, h, 'project')
  text(x + pad, y + 24, `Wexel.${name}`, 'name')
  text(x + pad, y + 41, about[name], 'about')
  const at = new Map()
  laid.forEach((names, i) => {
    // Spread over the line, so that arrows have room between.
    const sum = names.reduce((all, n) => all + wide(n), 0)
    const apart = Math.min(110, (w - 2 * pad - sum) / (names.length + 1))
    let left = x + (w - sum - apart * (names.length - 1)) / 2
    for (const n of names) {
      at.set(n, { x: Math.round(left), y: y + 52 + i * step, w: wide(n) })
      left += wide(n) + apart
    }
  })
  for (const [from, all] of reduced(uses))
    for (const to of all) {
      const [a, b] = [at.get(from), at.get(to)]
      const [x1, y1, x2, y2] = [a.x + a.w / 2, a.y + high, b.x + b.w / 2, b.y]
      line(`M${x1} ${y1}C${x1} ${y1 + 14} ${x2} ${y2 - 14} ${x2} ${y2 - 3}`, 'arrow')
    }
  for (const [n, p] of at) {
    box(p.x, p.y, p.w, high, 'folder')
    text(p.x + 10, p.y + 18, n, 'label')
  }
  return h
}

let y = 58
text(pad, 32, 'Wexel: who uses whom', 'title')
text(pad + 330, 32, 'Arrows point down alone. In a project a folder uses folders below it; what follows from two arrows is not drawn.', 'about')
const share = { Server: 0.78, Cli: 0.22, Making: 0.5, Delivering: 0.28, Data: 0.22, Media: 1, Core: 1 }
rows.forEach((row, i) => {
  let x = pad
  const room = width - 2 * pad - (row.length - 1) * gap
  const tall = Math.max(...row.map((name) => {
    const w = Math.floor(room * share[name])
    const h = project(name, x, y, w)
    x += w + gap
    return h
  }))
  y += tall + 34
  if (i < rows.length - 1) line(`M${width / 2} ${y - 30}V${y - 7}`, 'down')
})
text(pad, y - 4, 'Wexel.StandIns, the outside world in small, uses none of them and is used by none.', 'about')

const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${y + 12}" role="img" aria-label="The projects and folders of Wexel, and which uses which">
<style>
.project{fill:#FBFAF6;stroke:#1D2129}.folder{fill:#FFFFFF;stroke:#D9D5CA}.arrow{fill:none;stroke:#0B6570;stroke-opacity:.55;marker-end:url(#tip)}.down{fill:none;stroke:#A94A14;stroke-width:3;marker-end:url(#end)}
text{font-family:"Atkinson Hyperlegible Next",system-ui,sans-serif;fill:#1D2129}.title{font-size:20px;font-weight:700}.name{font-size:15px;font-weight:700}.label{font-size:13px}.about{font-size:12.5px;fill:#5A6070}
</style>
<defs><marker id="tip" markerWidth="6" markerHeight="6" refX="4" refY="3" orient="auto"><path d="M0 0L5 3L0 6z" fill="#0B6570"/></marker><marker id="end" markerWidth="4" markerHeight="4" refX="2.5" refY="2" orient="auto"><path d="M0 0L4 2L0 4z" fill="#A94A14"/></marker></defs>
<rect width="100%" height="100%" fill="#FBFAF6"/>
${out.join('\n')}
</svg>
`
if (process.argv.includes('--check')) {
  if (readFileSync(drawn, 'utf8') !== svg) {
    console.error('docs/map.svg is not as the code is; draw it again with: node docs/map.mjs')
    process.exit(1)
  }
} else writeFileSync(drawn, svg)
