<script setup lang="ts" generic="V extends string">
import { inject, useId } from 'vue'

/** One of several, with its label above it, unless the row that it stands in names it. */
defineProps<{ label: string; value: V; options: Partial<Record<V, string>> }>()
const named = inject('named', false)
const id = useId()
const emit = defineEmits<{ set: [value: V] }>()
</script>

<template>
  <div>
    <label :for="id" :class="named ? 'sr-only' : 'text-sm text-ink-2'">{{ label }}</label>
    <select
      :id="id"
      class="input"
      :value="value"
      @change="emit('set', ($event.target as HTMLSelectElement).value as V)"
    >
      <option v-for="(name, key) in options" :key="key" :value="key">{{ name }}</option>
    </select>
  </div>
</template>
