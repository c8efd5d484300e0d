import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { marked } from 'marked'
import { defineConfig, type Plugin } from 'vite'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** What stands in docs/ as Markdown can be shown as a page. */
const markdown: Plugin = {
  name: 'markdown',
  transform: (code, id) =>
    id.endsWith('.md') ? `export default ${JSON.stringify(marked.parse(code))}` : null,
}

/** All that is there from the start, the list of follow-ups with it: it comes as one file, which packs better than forty and costs one asking. */
const first = new Set<string>()
/** Named by a package that is there from the start, and used only by what comes later. */
const LATER =
  /@headlessui\/vue\/dist\/components\/(combobox|dialog|disclosure|focus-trap|listbox|portal|radio-group|switch|tabs|transitions)\//
const together: Plugin = {
  name: 'together',
  buildEnd() {
    const begins = [here('src/main.ts')]
    for (let id = begins.pop(); id; id = begins.pop()) {
      if (first.has(id) || LATER.test(id)) continue
      first.add(id)
      begins.push(...(this.getModuleInfo(id)?.importedIds ?? []))
    }
  },
  // Nearly all of it runs before the list stands there: a browser that knows the hint reads it once, beside the
  // page's own thread, and not function by function as each is called.
  generateBundle: {
    order: 'post',
    handler(_, bundle) {
      const chunk = Object.values(bundle).find((one) => one.type === 'chunk' && one.name === 'first')
      if (chunk?.type !== 'chunk') return this.error('what is there from the start is no file of its own')
      chunk.code = `//# allFunctionsCalledOnLoad\n${chunk.code}`
    },
  },
}

export default defineConfig({
  root: here('.'),
  base: '/static/console/',
  plugins: [markdown, vue(), tailwindcss(), together],
  resolve: { alias: { '@': here('src'), '@visitor': here('../visitor-script/src') } },
  build: {
    outDir: here('dist'),
    emptyOutDir: true,
    target: 'es2022',
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: { codeSplitting: { groups: [{ name: 'first', test: (id) => first.has(id) }] } },
    },
  },
})
