import { fileURLToPath } from 'node:url'
import { marked } from 'marked'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const alias = { '@': here('console/src'), '@visitor': here('visitor-script/src') }

export default defineConfig({
  plugins: [
    vue(),
    {
      name: 'markdown',
      transform: (code, id) =>
        id.endsWith('.md') ? `export default ${JSON.stringify(marked.parse(code))}` : null,
    },
  ],
  resolve: { alias },
  test: {
    coverage: {
      reportOnFailure: true,
      reportsDirectory: '.run/coverage',
      include: ['console/src/**/*.{ts,vue}'],
      exclude: ['**/*.test.ts', '**/testing/**', '**/*.d.ts'],
    },
    projects: [
      {
        extends: true,
        test: {
          name: 'pure',
          environment: 'node',
          include: ['{console,visitor-script}/**/*.test.ts'],
          exclude: ['console/src/**/*.place.test.ts', '**/node_modules/**'],
        },
      },
      {
        extends: true,
        test: {
          name: 'console',
          environment: 'jsdom',
          environmentOptions: { jsdom: { url: 'http://127.0.0.1:8400/' } },
          include: ['console/src/**/*.place.test.ts'],
          setupFiles: ['console/src/testing/browser.ts', 'console/src/testing/setup.ts'],
          // What is built of three hundred files is read once by each worker, not once by each file of tests.
          isolate: false,
          testTimeout: 60_000,
        },
      },
    ],
  },
})
