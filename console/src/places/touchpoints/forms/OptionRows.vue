<script setup lang="ts">
import { computed, inject } from 'vue'
import type { TouchpointDocument } from '@/api/document'
import { FIRST_WORDS } from '../fresh'

export interface Choice {
  value: string
  label: string
  next: string | null
}
/** The choices of a field or a question, each of which may lead to a step. */
const props = defineProps<{ options: readonly Choice[]; document: TouchpointDocument }>()
const emit = defineEmits<{ set: [options: Choice[]] }>()
const words = inject(FIRST_WORDS, undefined)
const steps = computed(() => props.document.steps)

function change(at: number, patch: Partial<Choice>) {
  emit(
    'set',
    props.options.map((one, index) => (index === at ? { ...one, ...patch } : one)),
  )
}
function add() {
  const taken = new Set(props.options.map((one) => one.value))
  let number = props.options.length + 1
  while (taken.has(`choice-${number}`)) number++
  emit('set', [
    ...props.options,
    { value: `choice-${number}`, label: words?.value?.choice ?? '', next: null },
  ])
}
function move(at: number, by: number) {
  const rows = [...props.options]
  const [row] = rows.splice(at, 1)
  if (row) rows.splice(at + by, 0, row)
  emit('set', rows)
}
</script>

<template>
  <fieldset class="grid gap-1.5">
    <legend class="text-sm text-ink-2">Choices</legend>
    <div v-for="(one, at) in options" :key="one.value" class="grid grid-cols-[1fr_auto] gap-1">
      <input
        class="input"
        :value="one.label"
        :aria-label="`Choice ${at + 1}`"
        @input="change(at, { label: ($event.target as HTMLInputElement).value })"
      />
      <span class="flex">
        <button
          type="button"
          class="btn px-1.5!"
          :disabled="at === 0"
          :aria-label="`Move ${one.label} up`"
          @click="move(at, -1)"
        >
          ↑
        </button>
        <button
          type="button"
          class="btn px-1.5!"
          :aria-label="`Remove ${one.label}`"
          @click="
            emit(
              'set',
              options.filter((_, index) => index !== at),
            )
          "
        >
          ✕
        </button>
      </span>
      <select
        class="input col-span-2 py-1! text-sm"
        :value="one.next ?? ''"
        :aria-label="`Where ${one.label} leads`"
        @change="change(at, { next: ($event.target as HTMLSelectElement).value || null })"
      >
        <option value="">leads nowhere else</option>
        <option v-for="step in steps" :key="step.id" :value="step.id">
          leads to “{{ step.name || step.id }}”
        </option>
      </select>
    </div>
    <button type="button" class="btn-link justify-self-start" @click="add">+ Choice</button>
  </fieldset>
</template>
