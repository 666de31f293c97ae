import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import ts from 'typescript'
import { folder, hasNoAccessibilityFaults, openFiles, rawTalk, rendered, signIn } from './help'

/** What the desk schedules, as it stands in its own file. */
const schedule = ts
  .transpileModule(readFileSync(join(import.meta.dirname, '../../web/desk/src/sounds/mix.ts'), 'utf8'), {
    compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2022 },
  })
  .outputText.replaceAll('export ', '')

/** Levels in dB, two a second, of what the desk lets be heard and of what learners get; both over voice and music. */
const levels = (page: Page, lesson: string, rendition: string, seconds: number) =>
  page.evaluate(
    async ([code, id, made, length]) => {
      // The desk's own function, computed and not played.
      const play = new Function(`${code}; return schedule`)()
      const of = async (context: BaseAudioContext, address: string) => context.decodeAudioData(await (await fetch(address)).arrayBuffer())
      const context = new OfflineAudioContext(2, length * 48_000, 48_000)
      const { under } = await (await fetch(`/api/lessons/${id}/mixing`)).json()
      const { document } = await (await fetch(`/api/lessons/${id}`)).json()
      const buffers = new Map()
      for (const bed of under.beds) buffers.set(bed.sound, await of(context, `/api/sounds/${bed.sound}.flac`))
      play(context, context.destination, under, buffers, 0, 0)
      const voice = context.createBufferSource()
      voice.buffer = await of(context, `/api/recordings/${document.recordingHash}/view`)
      const gain = context.createGain()
      gain.gain.value = under.gain
      voice.connect(gain).connect(context.destination)
      voice.start(0)
      const inDecibels = (sound: AudioBuffer) =>
        Array.from({ length: length * 2 - 2 }, (_, i) => {
          let sum = 0
          for (let c = 0; c < sound.numberOfChannels; c++) {
            const part = sound.getChannelData(c).subarray(i * 24_000, (i + 1) * 24_000)
            for (const s of part) sum += (s * s) / part.length / sound.numberOfChannels
          }
          return 10 * Math.log10(sum)
        })
      return { heard: inDecibels(await context.startRendering()), made: inDecibels(await of(context, `/api/renditions/${made}/file`)) }
    },
    [schedule, lesson, rendition, seconds] as const,
  )

test('music is laid under the voice, and heard before rendering with the numbers of the rendition', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await rendered(page, rawTalk('Talk with music.mp4', 420), 'Talk with music', '0:00 Start\n0:08 More')
  const lesson = /lessons\/([^/]+)/.exec(page.url())?.[1] as string
  const made = async () => (await (await page.request.get(`/api/lessons/${lesson}/deliver`)).json()).renditions[0]
  const before = await made()
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const panel = page.getByRole('region', { name: 'Sounds under the voice' })
  await panel.getByRole('button', { name: 'Lay one under all of it' }).click()
  const shelf = page.getByRole('dialog', { name: 'A sound from the shelf' })
  const found = shelf.getByRole('list', { name: 'Sounds on the shelf' }).getByRole('listitem')
  await expect(found).toHaveCount(12)
  // Boxes combine: any of a list, and all lists.
  await shelf.getByRole('checkbox', { name: /^Calm/ }).check()
  await expect(found).toHaveCount(5)
  await shelf.getByRole('checkbox', { name: /^Piano/ }).check()
  await expect(found).toHaveCount(1)
  await shelf.getByRole('checkbox', { name: /^Piano/ }).uncheck()
  await shelf.getByLabel('Sorted by').selectOption('length, shortest first')
  await expect(found.first()).toContainText('Morning tide')
  await found.first().getByRole('button', { name: 'Listen' }).click()
  await expect(found.first().getByRole('button', { name: 'Stop' })).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await found.first().getByRole('button', { name: 'Take “Morning tide”' }).click()

  const box = page.locator('[data-placed=sound]')
  await expect(box).toContainText('20 LU under it')
  await expect(panel).toContainText('Each comes down where somebody speaks, 3 stretches.')
  await expect(page.getByText(/revision \d+: 1 sound added/)).toBeVisible()
  await box.getByLabel('Down by, dB').fill('12')
  await box.getByLabel('Down by, dB').press('Enter')
  await expect(page.getByText(/revision \d+: 1 sound changed/)).toBeVisible()
  await hasNoAccessibilityFaults(page)

  // What is heard while it plays comes from the same function: it is scheduled, and ended where it pauses.
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect.poll(() => page.evaluate(() => document.querySelector('video')?.currentTime ?? 0)).toBeGreaterThan(0.5)
  await page.getByRole('button', { name: 'Pause', exact: true }).click()

  await page.getByRole('link', { name: 'Deliver' }).click()
  await openFiles(page)
  await page.getByRole('checkbox', { name: /Web, as recorded/ }).check()
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await expect.poll(async () => (await made())?.state, { timeout: 120_000 }).toBe('done')
  await expect.poll(async () => (await made())?.id !== before.id, { timeout: 60_000 }).toBe(true)
  const { heard, made: gotten } = await levels(page, lesson, (await made()).id, 24)
  // Bringing the whole to the house's loudness moves everything alike; where nobody speaks and where somebody does, all else is the same.
  const apart = gotten.map((level, i) => level - heard[i])
  const usual = [...apart].sort((a, b) => a - b)[Math.floor(apart.length / 2)]
  for (const [i, a] of apart.entries()) expect(Math.abs(a - usual), `at ${i / 2} s`).toBeLessThan(0.5)
})

test('a sound of one’s own is put on the shelf with its licence, credited by itself, and taken off', async ({ page }) => {
  test.setTimeout(180_000)
  const tune = join(folder, 'Own tune.mp3')
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    'aevalsrc=0.3*sin(2*PI*330*t)|0.2*sin(2*PI*440*t):s=44100:d=12',
    '-metadata',
    'artist=Elin Moor',
    tune,
  ])
  await signIn(page)
  await page.goto('/kit/sounds')
  const own = page.getByLabel('A sound of your own', { exact: true })
  await own.setInputFiles({ name: 'notes.mp3', mimeType: 'audio/mpeg', buffer: Buffer.from('This is no sound. '.repeat(100)) })
  await expect(page.getByText('This is not a sound file that can be read')).toBeVisible()
  await own.setInputFiles(tune)
  const form = page.getByRole('dialog', { name: 'A sound of your own' })
  await expect(form.getByLabel('Who made it')).toHaveValue('Elin Moor')
  await form.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(form.getByText('Say under which licence the sound may be used')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await form.getByRole('combobox', { name: 'Licence' }).selectOption('CC BY 4.0, Attribution')
  await form.getByLabel('Moods, with commas').fill('Calm, Slow')
  await form.getByLabel('Beats a minute').fill('120')
  await form.getByRole('button', { name: 'Put it on the shelf' }).click()
  const line = page.getByRole('listitem').filter({ hasText: 'Own tune' })
  await expect(line).toContainText('calm, slow · 12 s · 120 beats a minute · Elin Moor · CC BY 4.0, Attribution')
  await hasNoAccessibilityFaults(page)

  await page.goto('/')
  await page.getByLabel('Choose recordings').setInputFiles(rawTalk('Talk with own tune.mp4', 460))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByLabel('Title', { exact: true }).fill('Talk with own tune')
  await page.getByRole('link', { name: /^Tidy/ }).click()
  await page.getByRole('button', { name: 'Lay one under all of it' }).click()
  await page.getByRole('button', { name: 'Take “Own tune”' }).click()
  await expect(page.getByText(/revision \d+: 1 sound added/)).toBeVisible()
  const lesson = /lessons\/([^/]+)/.exec(page.url())?.[1]
  const outlets = await (await page.request.get(`/api/lessons/${lesson}/details`)).json()
  expect(JSON.stringify(outlets)).toContain('Sound: “Own tune” by Elin Moor, CC BY 4.0, Attribution (https://creativecommons.org/licenses/by/4.0/).')

  // Before people outside the house can come to it, it is said what of it is others'.
  await page.getByRole('link', { name: 'Deliver' }).click()
  await page.getByRole('listitem').filter({ hasText: 'intranet.example' }).getByRole('checkbox').first().check({ timeout: 90_000 })
  const rights = page.getByRole('region', { name: 'Rights in what is seen and heard' })
  await expect(rights).toContainText('All that stands on the screen')
  await expect(rights).toContainText('“Own tune”: CC BY 4.0, Attribution; its author’s name stands in the description by itself.')
  await hasNoAccessibilityFaults(page)

  await page.goto('/kit/sounds')
  await line.getByRole('button', { name: 'Take “Own tune” off the shelf' }).click()
  await page.getByRole('button', { name: 'Take it off' }).click()
  await expect(line).toHaveCount(0)
  await page.goto(`/lessons/${lesson}/tidy`)
  await expect(page.locator('[data-placed=sound]')).toContainText('Own tune')
})
