<script setup lang="ts">
import { ref } from 'vue'

/** Days that were marked, to be closed together. `said`: which days. */
defineProps<{ said: string }>()
const emit = defineEmits<{ close: [label: string, holiday: boolean]; leave: [] }>()
const label = ref('')
const holiday = ref(false)
const close = () => emit('close', label.value.trim(), holiday.value)
</script>

<template>
  <div
    class="my-1 flex flex-wrap items-end gap-2 rounded-md bg-petrol-wash p-2"
    role="group"
    aria-label="Close these days"
  >
    <p class="w-full">
      <strong>Closed {{ said }}</strong
      >, and the week stays as it is.
    </p>
    <label class="grid text-sm text-ink-2"
      >What it is<input
        v-model="label"
        class="input w-52!"
        placeholder="if it has a name"
        maxlength="80"
        @keydown.enter.prevent="close"
    /></label>
    <label class="flex items-center gap-1.5 pb-2"
      ><input v-model="holiday" type="checkbox" /> a holiday</label
    >
    <button type="button" class="btn btn-main" @click="close">Close {{ said }}</button>
    <button type="button" class="btn" @click="emit('leave')">Leave it</button>
  </div>
</template>
