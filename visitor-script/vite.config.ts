import { defineConfig } from 'vite'
import { fileURLToPath } from 'node:url'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

// One file, one global, no chunks: what a site pastes in with one line.
export default defineConfig({
  root: here('.'),
  build: {
    outDir: here('dist'),
    emptyOutDir: true,
    target: 'es2020',
    lib: { entry: here('src/main.ts'), formats: ['iife'], name: '__intavo', fileName: () => 'loader.js' },
  },
})
