<script setup lang="ts">
import { toRef } from 'vue'
import { useWhyThere, type MadeUp, type PageMap } from '@/api/rehearsals'
import type { Summary } from '@/api/touchpoints'
import ErrorBox from '@/parts/ErrorBox.vue'
import ReasonList from '../rehearse/ReasonList.vue'

/** Why a touchpoint shows on the pages of a column, or does not, and what else does. */
const props = defineProps<{
  row: Summary
  rows: Summary[]
  at: number
  map: PageMap
  site: number
  visitor: MadeUp | null
  rehearsal: object
}>()
const emit = defineEmits<{ close: [] }>()
const { data: why, error } = useWhyThere(
  toRef(props, 'site'),
  toRef(props, 'visitor'),
  toRef(() => ({ id: props.row.id, at: props.at })),
)
/** What else may show there, with the word or two of its cell. */
function beside(path: string): string {
  const others = props.map.rows.flatMap((mapped) => {
    const here = mapped.cells[props.at]
    const name = props.rows.find((row) => row.id === mapped.id)?.name
    if (mapped.id === props.row.id || !name || !here?.on.includes(path)) return []
    const words = { turn: 'in turn', asked: 'if opened' }[here.shows]
    return [words ? `${name} (${words})` : name]
  })
  return others.length ? `Also on this page: ${others.join(', ')}.` : 'Nothing else shows on this page.'
}
</script>

<template>
  <section
    class="sheet sticky bottom-0 z-10 mt-3 max-h-[60vh] overflow-auto p-4 shadow-lg"
    aria-label="Why"
    aria-live="polite"
  >
    <div class="mb-2 flex flex-wrap items-center gap-3">
      <h2 class="mr-auto">{{ row.name }} on {{ map.columns[at]?.label }}</h2>
      <RouterLink :to="rehearsal" class="btn">Rehearse from here</RouterLink>
      <button type="button" class="btn" @click="emit('close')">Close</button>
    </div>
    <ErrorBox v-if="error" :error="error" />
    <p v-else-if="!why" class="text-ink-2" role="status">Looking …</p>
    <details v-for="page in why" :key="page.path" :open="why?.length === 1" class="mb-1">
      <summary>
        <strong>{{ page.path }}</strong> —
        {{ page.shows ? 'it may show' : page.reasons.find((one) => !one.passed)?.words }}
      </summary>
      <ReasonList class="mt-1" :reasons="page.reasons" />
      <p class="mt-1 mb-2 text-ink-2">{{ beside(page.path) }}</p>
    </details>
  </section>
</template>
