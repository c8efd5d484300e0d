import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  root: here('.'),
  base: '/static/console/',
  plugins: [vue(), tailwindcss()],
  resolve: { alias: { '@': here('src'), '@visitor': here('../visitor-script/src') } },
  build: { outDir: here('dist'), emptyOutDir: true, target: 'es2022', assetsInlineLimit: 0 },
})
