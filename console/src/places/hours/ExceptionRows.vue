<script setup lang="ts">
import type { HoursDocument } from '@/api/hours'
import { useClock } from '@/lib/clock'
import { toLocal } from '@/lib/local'
import { yearDay } from '@/lib/time'
import WhenBox from '@/parts/WhenBox.vue'
import StretchRows from './StretchRows.vue'

const rows = defineModel<HoursDocument['exceptions']>({ required: true })
const props = defineProps<{ errors: Record<string, string> }>()

const { zone, now } = useClock()
function add() {
  const day = toLocal(now.value.toISOString(), zone.value).slice(0, 10)
  rows.value.push({ first: day, last: day, label: '', holiday: false, stretches: [] })
}
/** The last day follows the first, as long as nobody has said how long it is. */
function begin(at: number, day: string | null) {
  const row = rows.value[at]
  if (!row || !day) return
  const long = row.last > row.first
  row.first = day
  if (!long || row.last < day) row.last = day
}
function wrong(at: number): string {
  const found = Object.entries(props.errors).find(([field]) => field.startsWith(`hours.exceptions.${at}.`))
  return found?.[1] ?? ''
}
</script>

<template>
  <div v-for="(row, at) in rows" :key="at" class="mb-2 rounded-md border border-line-2 p-2.5">
    <div class="flex flex-wrap items-center gap-2">
      <WhenBox
        :value="row.first"
        class="w-38!"
        :aria-label="`First day of ${row.label || 'this one'}`"
        @set="begin(at, $event)"
      />
      <span aria-hidden="true">–</span>
      <WhenBox
        :value="row.last"
        class="w-38!"
        :aria-label="`Last day of ${row.label || 'this one'}`"
        @set="row.last = $event ?? row.first"
      />
      <input v-model="row.label" class="input w-36!" placeholder="What is it?" aria-label="What it is" />
      <label class="flex items-center gap-1.5"><input v-model="row.holiday" type="checkbox" /> holiday</label>
      <button
        type="button"
        class="btn-link ml-auto text-sm"
        :aria-label="`Remove ${row.label || yearDay(row.first)}`"
        @click="rows.splice(at, 1)"
      >
        remove
      </button>
    </div>
    <div class="mt-1.5 flex flex-wrap items-center gap-x-4">
      <span v-if="!row.stretches.length" class="hatch rounded px-2 py-1"
        ><span class="rounded bg-sheet px-1.5 text-ink-2">closed</span></span
      >
      <StretchRows
        v-for="(stretch, n) in row.stretches"
        :key="n"
        :stretch="stretch"
        :label="row.label || row.first"
        @remove="row.stretches.splice(n, 1)"
      />
      <button
        type="button"
        class="btn-link text-sm"
        @click="row.stretches.push({ from: '09:00', to: '13:00' })"
      >
        {{ row.stretches.length ? 'another stretch' : 'open for some hours' }}
      </button>
    </div>
    <p v-if="wrong(at)" class="mt-1 font-semibold text-rust" role="alert">{{ wrong(at) }}</p>
  </div>
  <button type="button" class="btn" @click="add">+ Odd day</button>
</template>
