<script setup lang="ts">
import { ref } from 'vue'

/** Codes for when the authenticator is lost: shown once, to be written down. */
const props = defineProps<{ codes: string[] }>()
const emit = defineEmits<{ kept: [] }>()
const copied = ref(false)
async function copy() {
  await navigator.clipboard.writeText(props.codes.join('\n'))
  copied.value = true
}
</script>

<template>
  <div class="mt-4 rounded-md border border-line bg-petrol-wash p-4" role="status">
    <p class="font-semibold">Keep these codes where you find them without your phone.</p>
    <p class="text-ink-2">Each signs you in once. They are shown this once only.</p>
    <ul class="my-3 grid grid-cols-2 gap-x-6 gap-y-1 sm:grid-cols-5" aria-label="Codes to keep">
      <li v-for="one in codes" :key="one" class="font-mono tracking-wide">{{ one }}</li>
    </ul>
    <p class="flex gap-2">
      <button type="button" class="btn" @click="copy">{{ copied ? 'Copied' : 'Copy them' }}</button>
      <button type="button" class="btn" @click="emit('kept')">I have kept them</button>
    </p>
  </div>
</template>
