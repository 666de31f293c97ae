import { readdirSync } from 'node:fs'
import { build } from 'vite'

// The player itself first, then each part that only some lessons need (Wexel.Core.Packages.PlayerPart), as a script of its own.
const config = `${import.meta.dirname}/vite.config.ts`
await build({ configFile: config })
for (const file of readdirSync(`${import.meta.dirname}/src`)) {
  const part = /^(\w+)\.main\.ts$/.exec(file)?.[1]
  if (!part) continue
  process.env.WEXEL_PART = part
  await build({ configFile: config })
}
