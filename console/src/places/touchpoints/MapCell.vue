<script setup lang="ts">
import type { Cell } from '@/api/rehearsals'

/** One touchpoint on the pages of a column: whether it shows; a click says why. */
defineProps<{ cell: Cell; label: string; chosen: boolean }>()
const emit = defineEmits<{ open: [] }>()
const LOOKS: Record<string, string> = {
  yes: 'bg-petrol border-petrol',
  some: 'bg-petrol/70 border-petrol',
  turn: 'bg-petrol/45 border-petrol/45',
  later: 'hatch border-line',
  asked: 'border-dashed border-petrol-2',
  no: 'border-line',
}
const SAID: Record<string, string> = {
  yes: 'shows',
  some: 'shows on some',
  turn: 'shows',
  later: 'later',
  asked: 'only when it is opened',
  no: 'does not show',
}
</script>

<template>
  <button
    type="button"
    class="inline-grid justify-items-center gap-0.5 rounded p-1"
    :class="{ 'outline-2 outline-petrol-2': chosen }"
    :aria-label="`${label}: ${SAID[cell.shows]}${cell.words ? `, ${cell.words}` : ''}`"
    :aria-expanded="chosen"
    @click="emit('open')"
  >
    <span class="block h-5 w-11 rounded border" :class="LOOKS[cell.shows]" />
    <span v-if="cell.words" class="text-xs whitespace-nowrap text-ink-2">{{ cell.words }}</span>
  </button>
</template>
