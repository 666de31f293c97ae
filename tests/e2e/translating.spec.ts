import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { xliff2js } from 'xliff'
import { clip, folder, hasNoAccessibilityFaults, release, rendered, signIn } from './help'

const said = 'WEBVTT\n\n00:00.500 --> 00:03.000\nChoose a vehicle in\n\n00:03.200 --> 00:06.000\nthe list. Then close the door.\n'

test('a machine drafts a language, a translator’s file mends it, and a learner chooses it once for all of the lesson', async ({ page, browser }) => {
  test.setTimeout(300_000)
  await signIn(page)
  await rendered(page, clip('Gate.mp4', 11), 'The gate', '0:00 Open the door\n0:05 Close the door')
  const link = await (async () => {
    const channel = page.getByTestId('outlet-channel')
    await release(page, channel, 'Whoever has the address')
    return channel.getByLabel('Link', { exact: true }).inputValue()
  })()
  await page.getByRole('link', { name: 'Mark up', exact: true }).click()
  await page.getByText('Add captions').click()
  await page.getByLabel('Choose a caption file').setInputFiles({ name: 'gate.vtt', mimeType: 'text/vtt', buffer: Buffer.from(said) })
  await expect(page.getByText('gate.vtt: 2 captions')).toBeVisible()
  await expect(page.getByText(/^Saved/)).toContainText('captions')

  // Debian's pair from English to Spanish makes a draft of all of it, which learners do not get.
  const section = page.getByRole('region', { name: 'In other languages' })
  await section.getByText('Add a language, or bring').click()
  await section.getByRole('button', { name: 'Have Apertium draft it' }).click()
  await expect(section.getByText('3 of 3 texts · 3 by a machine, which learners do not get')).toBeVisible()
  await expect(page.getByText('Apertium: 2 captions')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await section.getByRole('button', { name: 'Write and correct Spanish' }).click()
  const dialog = page.getByRole('dialog', { name: 'In Spanish' })
  await expect(dialog.getByLabel(/^Section at 0:05/)).toHaveValue(/puerta/)
  await dialog.getByLabel(/^Title/).fill('El portón')
  await dialog.getByLabel(/^Title/).press('Tab')
  await expect(dialog.getByText('By a machine')).toHaveCount(2)
  await hasNoAccessibilityFaults(page)
  await page.keyboard.press('Escape')
  await expect(page.getByText(/^Saved/)).toContainText('translation es')

  // The file for translators is one to an independent reader.
  const download = page.waitForEvent('download')
  await section.getByRole('link', { name: 'Spanish as a file for translators' }).click()
  const path = join(folder, 'gate.xlf')
  await (await download).saveAs(path)
  const file = readFileSync(path, 'utf8')
  const read = (await xliff2js(file)) as {
    sourceLanguage: string
    targetLanguage: string
    resources: Record<string, Record<string, { source: string; target?: string }>>
  }
  expect([read.sourceLanguage, read.targetLanguage]).toEqual(['en-GB', 'es'])
  const units = Object.values(read.resources.lesson)
  expect(units.map((u) => u.source)).toEqual(['The gate', 'Open the door', 'Close the door', 'Choose a vehicle in', 'the list. Then close the door.'])
  expect(units[0].target).toBe('El portón')

  // It comes back mended, with a unit that is gone and one that is there twice.
  const back = file
    .replace(/(<source[^>]*>Open the door<\/source>\s*<target[^>]*>)[^<]*/, '$1Abra la puerta')
    .replace(/(<source[^>]*>Choose a vehicle in<\/source>\s*<target[^>]*>)[^<]*/, '$1Elija un vehículo en')
    .replace('</file>', '<unit id="section.gone"><segment><source>Away</source><target>Fuera</target></segment></unit></file>')
  writeFileSync(path, back)
  await page.getByLabel('Choose a translator’s file').setInputFiles(path)
  const compared = page.getByRole('dialog', { name: /Spanish, from gate.xlf/ })
  await expect(compared.getByText('otherwise than here')).toHaveCount(2)
  await expect(compared.getByText('no longer in the lesson')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await compared.getByRole('button', { name: 'Take 2 texts' }).click()
  await expect(compared).toHaveCount(0)
  await expect(section.getByText('3 of 3 texts · 1 by a machine')).toBeVisible()
  writeFileSync(path, back.replace(/original="[^"]*"/, 'original="another"'))
  await page.getByLabel('Choose a translator’s file').setInputFiles(path)
  await expect(section.getByRole('alert')).toContainText('belongs to another lesson')

  // Without a word of the file encoded again, it is there.
  await expect(page.getByText(/^Saved/)).toBeVisible()
  await page.getByRole('link', { name: 'Deliver' }).click()
  const channel = page.getByTestId('outlet-channel')
  await page
    .getByRole('button', { name: /^(Release|Bring)/ })
    .first()
    .click()
  await expect(channel).toContainText(/Live since/, { timeout: 60_000 })

  const learner = await (await browser.newContext({ locale: 'en-GB' })).newPage()
  await learner.goto(link)
  await expect(learner.getByRole('heading', { level: 1 })).toHaveText('The gate')
  await hasNoAccessibilityFaults(learner)
  await learner.getByRole('combobox', { name: 'Language', exact: true }).selectOption('español')
  await expect(learner.getByRole('heading', { level: 1 })).toHaveText('El portón')
  await expect(learner.getByRole('heading', { level: 1 })).toHaveAttribute('lang', 'es')
  await expect(learner.getByRole('link', { name: /Abra la puerta/ })).toBeVisible()
  // What is a draft still, nobody released.
  await expect(learner.getByRole('link', { name: /Close the door/ })).toBeVisible()
  await expect(learner.getByLabel('Captions', { exact: true })).toHaveValue('1')
  await hasNoAccessibilityFaults(learner)
  await learner.reload()
  await expect(learner.getByRole('heading', { level: 1 })).toHaveText('El portón')
  // A browser that asks for Spanish gets it unasked.
  const spanish = await (await browser.newContext({ locale: 'es-AR' })).newPage()
  await spanish.goto(link)
  await expect(spanish.getByRole('heading', { level: 1 })).toHaveText('El portón')
})
