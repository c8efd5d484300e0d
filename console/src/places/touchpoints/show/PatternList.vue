<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import type { Pattern } from './sentence'

/** Pages, one a line: each by itself, with all below it, or by a pattern. */
const props = defineProps<{ label: string; patterns: Pattern[]; exact?: boolean; groups: string[] }>()
const emit = defineEmits<{ set: [patterns: Pattern[]] }>()
const PLAIN = { exact: 'this page', below: 'and all below' }
const MORE = {
  contains: 'contains',
  glob: 'with * and ?',
  regex: 'regular expression',
  group: 'group of pages',
}
const kinds = (one: Pattern) => (props.exact || !(one.kind in PLAIN) ? { ...PLAIN, ...MORE } : PLAIN)
const change = (at: number, patch: Partial<Pattern>) =>
  emit(
    'set',
    props.patterns.map((one, index) => (index === at ? { ...one, ...patch } : one)),
  )
const value = (event: Event) => (event.target as HTMLInputElement).value
function path(at: number, event: Event) {
  const text = value(event).trim()
  if (text) change(at, { path: text })
  else drop(at)
}
const drop = (at: number) =>
  emit(
    'set',
    props.patterns.filter((_, index) => index !== at),
  )
function read(text: string): Pattern {
  const below = /\/\*+$/.test(text)
  return {
    kind: below ? 'below' : 'exact',
    path: (below ? text.replace(/\/\*+$/, '') : text) || '/',
    query: false,
  }
}
/** Pages typed or pasted, one or a list of them: each is judged by itself. */
function take(text: string) {
  const found = text.split(/[\s,;]+/).filter(Boolean)
  if (found.length) emit('set', [...props.patterns, ...found.map(read)])
}
function add(event: Event) {
  const box = event.target as HTMLInputElement
  const text = box.value
  box.value = ''
  take(text)
}
function pasted(event: ClipboardEvent) {
  const text = event.clipboardData?.getData('text') ?? ''
  if (!/[\r\n]/.test(text.trim())) return
  event.preventDefault()
  take(text)
}
</script>

<template>
  <fieldset class="grid gap-1">
    <legend class="font-semibold">{{ label }}</legend>
    <div
      v-for="(one, at) in patterns"
      :key="`${one.kind} ${one.path}`"
      class="grid grid-cols-[1fr_9.5rem_auto] items-center gap-1.5"
    >
      <select
        v-if="one.kind === 'group'"
        class="input"
        :aria-label="`${label}: group ${at + 1}`"
        :value="one.path"
        @change="path(at, $event)"
      >
        <option v-for="name in [...new Set([...groups, one.path])]" :key="name">{{ name }}</option>
      </select>
      <input
        v-else
        v-typed="one.path"
        class="input"
        :aria-label="`${label}: page ${at + 1}`"
        @change="path(at, $event)"
      />
      <select
        class="input"
        :aria-label="`${label}: how ${at + 1}`"
        :value="one.kind"
        @change="change(at, { kind: value($event) as Pattern['kind'] })"
      >
        <option v-for="(name, kind) in kinds(one)" :key="kind" :value="kind">{{ name }}</option>
      </select>
      <button
        type="button"
        class="btn-link text-rust min-h-6 min-w-6"
        :aria-label="`${label}: leave out ${one.path}`"
        @click="drop(at)"
      >
        ×
      </button>
      <label
        v-if="exact && one.kind !== 'group'"
        class="col-span-3 flex items-center gap-1.5 text-sm text-ink-2"
      >
        <input
          type="checkbox"
          :checked="one.query"
          @change="change(at, { query: ($event.target as HTMLInputElement).checked })"
        />
        with what stands after the “?”
      </label>
    </div>
    <input
      class="input"
      :aria-label="`${label}: add`"
      placeholder="add a page: /trips, or /trips/* with all below it"
      @change="add"
      @paste="pasted"
      @keydown.enter.prevent="add"
    />
  </fieldset>
</template>
