<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { ref } from 'vue'
import { screenKeys } from '@/lib/keys'
import DialogBox from './DialogBox.vue'

const open = ref(false)
onKeyStroke('F1', (event) => {
  event.preventDefault()
  open.value = true
})
const ALWAYS = [
  { keys: 'Ctrl K', does: 'Find a person or go anywhere' },
  { keys: 'F1', does: 'This list' },
  { keys: 'Esc', does: 'Close or go back' },
]
</script>

<template>
  <DialogBox title="Keys of this screen" :open="open" class="w-96" @close="open = false">
    <dl class="grid grid-cols-[8rem_1fr] gap-y-2">
      <template v-for="key in [...screenKeys, ...ALWAYS]" :key="key.keys">
        <dt class="font-semibold">{{ key.keys }}</dt>
        <dd class="text-ink-2">{{ key.does }}</dd>
      </template>
    </dl>
    <button type="button" class="btn mt-4" @click="open = false">Close</button>
  </DialogBox>
</template>
