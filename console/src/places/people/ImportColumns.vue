<script setup lang="ts">
import type { Brought, Column } from '@/api/imports'
import type { ImportSettings } from './bringing'

/** What the columns of a file are, above its first rows. */
defineProps<{ row: Brought }>()
const settings = defineModel<ImportSettings>({ required: true })
const emit = defineEmits<{ keep: [] }>()
const COLUMNS: Record<Column, string> = {
  name: 'Name',
  email: 'Email',
  phone: 'Phone',
  tag: 'Tag',
  consent: 'Agreed: yes or no',
  note: 'Note',
  own: 'Kept as it is',
  data: 'Added and agreed, as exported',
  ignored: 'Left out',
}
const DELIMITERS = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }
const ENCODINGS = {
  'utf-8': 'Unicode (UTF-8)',
  'windows-1252': 'Western (Windows-1252)',
  'utf-16': 'Unicode (UTF-16)',
  'iso-8859-2': 'Central European',
  'windows-1251': 'Cyrillic',
  shift_jis: 'Japanese',
}
</script>

<template>
  <section class="sheet mb-4 p-4" aria-labelledby="columns-title">
    <h2 id="columns-title" class="mb-2">What its columns are</h2>
    <div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <label class="flex items-center gap-1.5"
        ><input v-model="settings.header" type="checkbox" @change="emit('keep')" /> the first row has their
        names</label
      >
      <label class="flex items-center gap-1.5"
        >parted by
        <select v-model="settings.delimiter" class="piece" @change="emit('keep')">
          <option v-for="(words, key) in DELIMITERS" :key="key" :value="key">{{ words }}</option>
        </select></label
      >
      <label class="flex items-center gap-1.5"
        >letters as
        <select v-model="settings.encoding" class="piece" @change="emit('keep')">
          <option v-if="!(settings.encoding in ENCODINGS)" :value="settings.encoding">
            {{ settings.encoding }}
          </option>
          <option v-for="(words, key) in ENCODINGS" :key="key" :value="key">{{ words }}</option>
        </select></label
      >
    </div>
    <div class="overflow-x-auto">
      <table class="border-collapse text-sm">
        <thead>
          <tr>
            <th
              v-for="(_, index) in row.columns"
              :key="index"
              class="border border-line-2 p-1.5 text-left align-bottom font-normal"
            >
              <span class="mb-1 block max-w-44 truncate font-semibold">{{
                row.titles[index] || `Column ${index + 1}`
              }}</span>
              <select
                v-model="settings.columns[index]"
                class="input w-36! py-1!"
                :aria-label="`What “${row.titles[index] || `column ${index + 1}`}” is`"
                @change="emit('keep')"
              >
                <option v-for="(words, key) in COLUMNS" :key="key" :value="key">{{ words }}</option>
              </select>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(cells, index) in row.first" :key="index">
            <td
              v-for="(kind, column) in row.columns"
              :key="column"
              class="max-w-52 truncate border border-line-2 px-1.5 py-1"
              :class="{ 'text-ink-3': kind === 'ignored' }"
              dir="auto"
            >
              {{ cells[column] }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
