<script setup lang="ts">
import { useId } from 'vue'

defineProps<{
  label: string
  error?: string | undefined
  type?: string
  hint?: string
  autocomplete?: string
  rows?: number
}>()
const text = defineModel<string>({ required: true })
const id = useId()
</script>

<template>
  <div>
    <label :for="id" class="mb-1 block font-semibold">{{ label }}</label>
    <textarea
      v-if="rows"
      :id="id"
      v-model="text"
      class="input"
      :rows="rows"
      :aria-invalid="!!error"
      :aria-describedby="`${id}-more`"
    />
    <input
      v-else
      :id="id"
      v-model="text"
      class="input"
      :type="type ?? 'text'"
      :autocomplete="autocomplete"
      :aria-invalid="!!error"
      :aria-describedby="`${id}-more`"
    />
    <p :id="`${id}-more`" class="mt-1 text-sm" :class="error ? 'font-semibold text-rust' : 'text-ink-2'">
      {{ error || hint }}
    </p>
  </div>
</template>
