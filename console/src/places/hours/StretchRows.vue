<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Stretch } from '@/api/hours'
import { readClock } from '@/lib/clocktime'
import { clockOf } from '@/lib/time'

const props = defineProps<{ stretch: Stretch; label: string }>()
defineEmits<{ remove: [] }>()
const read = computed(() => [readClock(props.stretch.from), readClock(props.stretch.to)] as const)
const overnight = computed(
  () => read.value[0] !== null && read.value[1] !== null && read.value[1] <= read.value[0],
)
type End = 'from' | 'to'
/** As the region's clock has it; while it is typed, as it is typed. */
const typing = ref<{ end: End; text: string } | null>(null)
function shown(end: End): string {
  if (typing.value?.end === end) return typing.value.text
  const kept = props.stretch[end]
  return readClock(kept) === kept ? clockOf(kept) : kept
}
function type(end: End, event: Event) {
  const text = (event.target as HTMLInputElement).value
  typing.value = { end, text }
  // eslint-disable-next-line vue/no-mutating-props -- the row is a view on the form's own draft
  props.stretch[end] = text.trim()
}
/** What was typed stands as a time once the box is left. */
function settle(end: End) {
  const found = readClock(props.stretch[end])
  // eslint-disable-next-line vue/no-mutating-props -- the row is a view on the form's own draft
  if (found) props.stretch[end] = found
}
</script>

<template>
  <div class="mb-1 flex flex-wrap items-center gap-2">
    <template v-for="end in ['from', 'to'] as const" :key="end">
      <span v-if="end === 'to'" aria-hidden="true">–</span>
      <!-- Plain text, since a time field knows no 24:00 and nobody types as it wants. -->
      <input
        :value="shown(end)"
        class="input w-24!"
        :aria-label="`${label} ${end}`"
        :aria-invalid="read[end === 'from' ? 0 : 1] === null"
        maxlength="12"
        @input="type(end, $event)"
        @change="settle(end)"
        @blur="typing = null"
      />
    </template>
    <span v-if="overnight" class="text-sm text-ink-2">until the next day</span>
    <span v-else-if="read.includes(null)" class="text-sm font-semibold text-rust"
      >write it like 9:30 or 5pm</span
    >
    <button
      type="button"
      class="btn-link text-sm"
      :aria-label="`Remove ${stretch.from} to ${stretch.to} on ${label}`"
      @click="$emit('remove')"
    >
      remove
    </button>
  </div>
</template>
