<script setup lang="ts">
import type { Reason } from '@/api/rehearsals'

/** Every check with its reason; what stops it stands out. */
defineProps<{ reasons: Reason[] }>()
const NAMES: Record<string, string> = {
  state: 'On or off',
  site: 'Site',
  where: 'Page',
  who: 'Who',
  during: 'Dates and hours',
  'how often': 'How often',
  until: 'Until',
  moment: 'Moment',
  turn: 'Turn',
}
</script>

<template>
  <ul>
    <li
      v-for="one in reasons"
      :key="one.name"
      class="grid grid-cols-[1.5rem_9rem_minmax(0,1fr)] max-sm:grid-cols-[1.5rem_5rem_minmax(0,1fr)] border-t border-line-2 py-1"
    >
      <span
        :class="one.passed ? 'text-moss' : 'font-bold text-rust'"
        :aria-label="one.passed ? 'passes' : 'stops it'"
        >{{ one.passed ? '✓' : '✕' }}</span
      >
      <span :class="{ 'font-semibold': !one.passed }">{{ NAMES[one.name] ?? one.name }}</span>
      <span :class="{ 'font-semibold': !one.passed }">{{ one.words }}</span>
    </li>
  </ul>
</template>
