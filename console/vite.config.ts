import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { marked } from 'marked'
import { defineConfig, type Plugin } from 'vite'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** What stands in docs/ as Markdown can be shown as a page. */
const markdown: Plugin = {
  name: 'markdown',
  transform: (code, id) => (id.endsWith('.md') ? `export default ${JSON.stringify(marked.parse(code))}` : null),
}

export default defineConfig({
  root: here('.'),
  base: '/static/console/',
  plugins: [markdown, vue(), tailwindcss()],
  resolve: { alias: { '@': here('src'), '@visitor': here('../visitor-script/src') } },
  build: { outDir: here('dist'), emptyOutDir: true, target: 'es2022', assetsInlineLimit: 0 },
})
