<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { onKeyStroke } from '@vueuse/core'
import { ref } from 'vue'
import { screenKeys } from '@/lib/keys'

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
  <Dialog :open="open" class="relative z-50" @close="open = false">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="pop w-96 max-w-full p-5">
        <DialogTitle as="h2" class="mb-3">Keys of this screen</DialogTitle>
        <dl class="grid grid-cols-[8rem_1fr] gap-y-2">
          <template v-for="key in [...screenKeys, ...ALWAYS]" :key="key.keys">
            <dt class="font-semibold">{{ key.keys }}</dt>
            <dd class="text-ink-2">{{ key.does }}</dd>
          </template>
        </dl>
        <button type="button" class="btn mt-4" @click="open = false">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
