<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import TickBox from '@/parts/fields/TickBox.vue'
import type { Show } from './sentence'

/** After which answer it comes no more. */
const props = defineProps<{ show: Show }>()
const emit = defineEmits<{ set: [patch: Partial<Show>] }>()
const until = (patch: Partial<Show['until']>) => emit('set', { until: { ...props.show.until, ...patch } })
</script>

<template>
  <div class="grid gap-2">
    <TickBox :value="show.until.answered" @set="until({ answered: $event })"
      >not any more after they answered</TickBox
    >
    <label class="text-sm text-ink-2"
      >It belongs to the group<input
        v-typed="show.group"
        class="input"
        placeholder="none"
        maxlength="60"
        @change="emit('set', { group: ($event.target as HTMLInputElement).value.trim() })"
    /></label>
    <TickBox :value="show.until.group" :disabled="!show.group" @set="until({ group: $event })"
      >nor after they answered another of its group</TickBox
    >
  </div>
</template>
