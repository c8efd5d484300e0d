<script setup lang="ts">
import { useId } from 'vue'

defineProps<{
  label: string
  value: string
  rows?: number
  hint?: string
  placeholder?: string
  bad?: string | undefined
}>()
const emit = defineEmits<{ set: [value: string] }>()
const id = useId()
const text = (event: Event) => (event.target as HTMLInputElement | HTMLTextAreaElement).value
</script>

<template>
  <div>
    <label class="text-sm text-ink-2" :for="id">{{ label }}</label>
    <textarea
      v-if="rows"
      :id="id"
      :value="value"
      :rows="rows"
      :placeholder="placeholder"
      class="input resize-y"
      @input="emit('set', text($event))"
    />
    <input
      v-else
      :id="id"
      :value="value"
      :placeholder="placeholder"
      class="input"
      @input="emit('set', text($event))"
    />
    <p v-if="hint" class="mt-0.5 text-xs text-ink-2">{{ hint }}</p>
    <p v-if="bad" class="mt-0.5 text-sm font-semibold text-rust">{{ bad }}</p>
  </div>
</template>
