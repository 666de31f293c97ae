import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { defineConfig, type Plugin } from 'vite'

/** What plays playlists lies beside the script, which loads it only for a lesson that is one. */
const hls: Plugin = {
  name: 'hls-beside',
  generateBundle() {
    this.emitFile({ type: 'asset', fileName: 'hls.min.js', source: readFileSync(createRequire(import.meta.url).resolve('hls.js/dist/hls.min.js')) })
  },
}

const part = process.env.WEXEL_PART
const name = part ? `wexel-${part}` : 'wexel-player'

// One classic script, one style sheet and the fonts: a page that was opened from disk can load these, and no module. Parts that only some lessons need
// are built one after the other by build.mjs, each the same way.
export default defineConfig({
  root: import.meta.dirname,
  base: './',
  plugins: part ? [] : [hls],
  build: {
    outDir: '../../artifacts/player',
    emptyOutDir: !part,
    cssCodeSplit: false,
    assetsInlineLimit: 0,
    modulePreload: false,
    rollupOptions: {
      input: `${import.meta.dirname}/src/${part ? `${part}.main` : 'main'}.ts`,
      output: {
        format: 'iife',
        entryFileNames: `${name}.js`,
        assetFileNames: (asset) => (asset.names.some((asset) => asset.endsWith('.css')) ? `${name}.css` : 'fonts/[name][extname]'),
      },
    },
  },
})
