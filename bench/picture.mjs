/** A page, and how long after it came its picture was drawn, in milliseconds: the first frame of the browser that holds more than half as much as the last one. */
export async function opened(browser, cookie, base, link) {
  const [name, value] = cookie.split('=')
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addCookies([{ name, value, url: base }])
  const page = await context.newPage()
  const devtools = await context.newCDPSession(page)
  const frames = []
  devtools.on('Page.screencastFrame', ({ metadata, data, sessionId }) => {
    frames.push({ at: metadata.timestamp * 1000, size: data.length })
    devtools.send('Page.screencastFrameAck', { sessionId }).catch(() => undefined)
  })
  await devtools.send('Page.startScreencast', { format: 'jpeg', quality: 50 })
  await page.goto(link)
  await page.waitForTimeout(1500)
  await devtools.send('Page.stopScreencast')
  const came = await page.evaluate(() => performance.timeOrigin + performance.getEntriesByType('navigation')[0].responseEnd)
  return { page, picture: frames.find((f) => f.size > frames.at(-1).size / 2).at - came }
}
