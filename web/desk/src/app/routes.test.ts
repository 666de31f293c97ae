import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'

/** The server answers an address of the desk with the desk, and any other with a page that says that it leads nowhere. */
test('the server knows every address that the desk has', () => {
  const routes = [...readFileSync('web/desk/src/app/App.tsx', 'utf8').matchAll(/<Route path="(\/[^"*]*)"/g)].map((m) => m[1] as string)
  const served = [...readFileSync('src/Wexel.Server/Serving/DeskPages.cs', 'utf8').matchAll(/"(\/[^"]*)"/g)].map(
    (m) => new RegExp(`^${(m[1] as string).replace(/\/\{\w+\?\}/g, '(/[^/]+)?').replace(/\{\w+\}/g, '[^/]+')}$`),
  )
  expect(routes.length).toBeGreaterThan(10)
  for (const route of routes.map((r) => r.replace(/\/:\w+\?/g, '').replace(/:\w+/g, 'x')))
    expect(
      served.some((address) => address.test(route)),
      route,
    ).toBe(true)
})
