<script setup lang="ts">
import { ref } from 'vue'
import TextField from '@/parts/TextField.vue'

/** Asks for the password once more, at the place that needs it. */
defineProps<{ error?: string | undefined; busy: boolean }>()
const emit = defineEmits<{ said: [password: string]; cancel: [] }>()
const password = ref('')
</script>

<template>
  <form
    class="mt-3 grid max-w-96 gap-3 border-t border-line-2 pt-3"
    novalidate
    @submit.prevent="emit('said', password)"
  >
    <TextField
      v-model="password"
      label="Your password, once more"
      type="password"
      autocomplete="current-password"
      :error="error"
      hint="Asked so that nobody who finds your browser open changes it."
    />
    <p class="flex gap-2">
      <button class="btn btn-main" :disabled="busy">Go on</button>
      <button type="button" class="btn" @click="emit('cancel')">Cancel</button>
    </p>
  </form>
</template>
