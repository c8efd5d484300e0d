import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Every file of the built console but the editor's own heavy parts' maps, with what tells its versions apart. */
function built(): { url: string; revision: string | null }[] {
  return readdirSync(here('dist'), { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile() && one.name !== 'sw.js')
    .map((one) => `${one.parentPath}/${one.name}`)
    .map((path) => {
      const name = path.slice(here('dist').length + 1)
      const hashed = name.startsWith('assets/')
      return {
        url: `/static/console/${name}`,
        revision: hashed ? null : createHash('sha256').update(readFileSync(path)).digest('hex').slice(0, 16),
      }
    })
}

// Built after the console itself, whose files it names.
export default defineConfig({
  root: here('.'),
  publicDir: false,
  define: { 'self.__KEPT': JSON.stringify(built()), 'process.env.NODE_ENV': '"production"' },
  build: {
    outDir: here('dist'),
    emptyOutDir: false,
    target: 'es2022',
    lib: { entry: here('src/sw.ts'), formats: ['iife'], name: '__sw', fileName: () => 'sw.js' },
  },
})
