import { copyFileSync, mkdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { defineConfig, type Plugin } from 'vite'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const more = process.env.PART === 'more'
const FONTS = ['figtree', 'bricolage-grotesque', 'literata', 'nunito']

/** The shipped fonts, in the Latin letters, beside the script. */
const fonts: Plugin = {
  name: 'fonts',
  closeBundle() {
    mkdirSync(here('dist/fonts'), { recursive: true })
    for (const font of FONTS) {
      const from = here(`../node_modules/@fontsource-variable/${font}/files/${font}-latin-wght-normal.woff2`)
      copyFileSync(from, here(`dist/fonts/${font}.woff2`))
    }
  },
}

/** Style sheets in texts as one line. */
const lines: Plugin = {
  name: 'lines',
  transform: (code, id) =>
    /\bcss\.ts$/.test(id) ? code.replace(/`[^`]*`/g, (text) => text.replace(/\n/g, '')) : null,
}

// One file, one global: what a site pastes in with one line. The rest is a file of its own, loaded where it is needed.
export default defineConfig({
  root: here('.'),
  publicDir: false,
  plugins: more ? [lines, fonts] : [lines],
  build: {
    outDir: here('dist'),
    emptyOutDir: !more,
    target: 'es2022',
    lib: {
      entry: here(more ? 'src/more/main.ts' : 'src/main.ts'),
      formats: ['iife'],
      name: '__intavo',
      fileName: () => (more ? 'more.js' : 'loader.js'),
    },
  },
})
