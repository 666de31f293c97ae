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

// One classic script, one style sheet and the fonts: a page that was opened from disk can load these, and no module.
export default defineConfig({
  root: import.meta.dirname,
  base: './',
  plugins: [hls],
  build: {
    outDir: '../../artifacts/player',
    emptyOutDir: true,
    cssCodeSplit: false,
    assetsInlineLimit: 0,
    modulePreload: false,
    rollupOptions: {
      input: `${import.meta.dirname}/src/main.ts`,
      output: {
        format: 'iife',
        entryFileNames: 'wexel-player.js',
        assetFileNames: (asset) => (asset.names.some((name) => name.endsWith('.css')) ? 'wexel-player.css' : 'fonts/[name][extname]'),
      },
    },
  },
})
