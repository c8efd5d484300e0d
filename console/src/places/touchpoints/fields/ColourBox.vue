<script setup lang="ts">
import { vTyped } from '@/lib/typed'
defineProps<{ label: string; value: string }>()
const emit = defineEmits<{ set: [value: string] }>()
function typed(event: Event) {
  const box = event.target as HTMLInputElement
  const text = box.value.trim().toLowerCase()
  const full = /^#?[0-9a-f]{6}$/.test(text) ? `#${text.replace('#', '')}` : null
  if (full) emit('set', full)
}
</script>

<template>
  <span class="flex items-center gap-1.5">
    <input
      type="color"
      class="h-8 w-10 shrink-0 rounded border border-line bg-sheet"
      :aria-label="label"
      :value="value"
      @input="emit('set', ($event.target as HTMLInputElement).value)"
    />
    <input v-typed="value" class="input w-22! px-1.5!" :aria-label="`${label}, written`" maxlength="7" @change="typed" />
  </span>
</template>
