<script setup lang="ts">
import { provide } from 'vue'

/**
 * One value of the look: where it departs from what it would follow it is marked, and goes back in one click.
 */
defineProps<{ name: string; departs: boolean; from: string }>()
provide('named', true)
const emit = defineEmits<{ back: [] }>()
</script>

<template>
  <div class="grid grid-cols-[6rem_1fr] items-center gap-x-2">
    <span class="text-sm" :class="departs ? 'font-semibold text-petrol' : 'text-ink-2'">{{ name }}</span>
    <span class="flex min-w-0 items-center gap-1.5">
      <span class="min-w-0 flex-1"><slot /></span>
      <button
        v-if="departs"
        type="button"
        class="shrink-0 rounded px-1 text-sm text-petrol hover:bg-petrol-tint"
        :title="`Own value; go back to ${from}`"
        :aria-label="`${name}: back to ${from}`"
        @click="emit('back')"
      >
        ● ↺
      </button>
    </span>
  </div>
</template>
