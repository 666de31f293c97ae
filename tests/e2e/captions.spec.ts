import { expect, type Page, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, rendered, signIn } from './help'

const tracks = (page: Page) =>
  page.evaluate(() =>
    [...(document.querySelector('video')?.textTracks ?? [])]
      .filter((t) => t.kind !== 'chapters')
      .map((t) => `${t.language} ${t.kind} ${t.mode} ${t.cues?.[0]?.id ?? ''}`),
  )

test('a learner chooses the language of the captions once', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await rendered(page, clip('Mooring.mp4', 9), 'Mooring', '0:00 First')
  const lesson = page.url().match(/lessons\/([^/]+)/)?.[1]
  // The desk shows one track so far; more come over the API.
  const [now, channel] = await page.evaluate(async (id) => {
    const add = async (language: string, text: string) => {
      const vtt = `WEBVTT\n\nfirst\n00:00.500 --> 00:08.000\n${text}\n`
      const answer = await fetch(`/api/captions?fileName=${language}.vtt&language=${language}`, {
        method: 'PUT',
        body: vtt,
        headers: { 'Content-Type': 'application/octet-stream' },
      })
      return (await answer.json()).track
    }
    const view = await (await fetch(`/api/lessons/${id}`)).json()
    const captions = [await add('en-GB', 'Make fast.'), { ...(await add('es-ES', 'Amarre.')), kind: 'translation' }]
    const saved = await fetch(`/api/lessons/${id}/document`, {
      method: 'PUT',
      body: JSON.stringify({ basedOn: view.revision, document: { ...view.document, captions, details: { thirdParty: { used: false } } } }),
      headers: { 'Content-Type': 'application/json' },
    })
    const outlets = await (await fetch(`/api/lessons/${id}/releases`)).json()
    return [saved.status, outlets.find((o: { kind: string }) => o.kind === 'channel').id]
  }, lesson)
  expect(now).toBe(200)
  const link = await page.evaluate(
    async ([id, outlet]) => {
      const released = await fetch(`/api/lessons/${id}/releases`, {
        method: 'POST',
        body: JSON.stringify({ outletId: outlet, profileId: 'web', visibility: 'withLink' }),
        headers: { 'Content-Type': 'application/json' },
      })
      return (await released.json()).release.link as string
    },
    [lesson, channel],
  )

  await page.goto(link)
  const choice = page.getByLabel('Captions', { exact: true })
  await expect(choice).toBeVisible()
  expect(await tracks(page)).toEqual(['en-GB captions showing first', 'es-ES subtitles disabled '])
  await hasNoAccessibilityFaults(page)
  await choice.selectOption('Captions: español')
  await expect.poll(() => tracks(page)).toEqual(['en-GB captions disabled ', 'es-ES subtitles showing first'])
  // Off and on again it is the same language.
  await page.keyboard.press('Tab')
  await page.locator('h1').click()
  await page.keyboard.press('c')
  await expect.poll(() => tracks(page)).toEqual(['en-GB captions disabled ', 'es-ES subtitles disabled '])
  await page.keyboard.press('c')
  await expect.poll(() => tracks(page)).toEqual(['en-GB captions disabled ', 'es-ES subtitles showing first'])
  // And on the next page too.
  await page.reload()
  await expect.poll(() => tracks(page)).toEqual(['en-GB captions disabled ', 'es-ES subtitles showing first'])
  await expect(choice.locator('option:checked')).toHaveText('Captions: español')
  await page.setViewportSize({ width: 360, height: 740 })
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360)
})
