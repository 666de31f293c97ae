import { defineConfig } from 'vite'

// One classic script, one style sheet and the fonts: a page that was opened from disk can load these, and no module.
export default defineConfig({
  root: import.meta.dirname,
  base: './',
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
