import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': here('console/src'), '@visitor': here('visitor-script/src') } },
  test: { environment: 'node', include: ['{console,visitor-script}/**/*.test.ts'] },
})
