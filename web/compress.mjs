// Puts a smaller form of each text beside it, for browsers that take it: made once here, as small as it gets, and not at each request.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const texts = /\.(js|css|html|svg|json|webmanifest)$/
const leastBytes = 1000

for (const folder of process.argv.slice(2)) {
  for (const name of readdirSync(folder, { recursive: true })) {
    if (!texts.test(name)) continue
    const path = join(folder, name)
    const bytes = readFileSync(path)
    if (bytes.length < leastBytes) continue
    writeFileSync(
      `${path}.br`,
      brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } }),
    )
    writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }))
  }
}
