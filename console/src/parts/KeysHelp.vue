<script setup lang="ts">
import { screenKeys } from '@/lib/keys'
import DialogBox from './DialogBox.vue'
import { helping } from './find'

const ALWAYS = [
  { keys: 'Ctrl K', does: 'Find a person or go anywhere' },
  { keys: 'F1', does: 'This list' },
  { keys: 'Esc', does: 'Close or go back' },
]
</script>

<template>
  <DialogBox title="Keys of this screen" :open="helping" class="w-96" @close="helping = false">
    <dl class="grid grid-cols-[8rem_minmax(0,1fr)] gap-y-2">
      <template v-for="key in [...screenKeys, ...ALWAYS]" :key="key.keys">
        <dt class="font-semibold">{{ key.keys }}</dt>
        <dd class="text-ink-2">{{ key.does }}</dd>
      </template>
    </dl>
    <button type="button" class="btn mt-4" @click="helping = false">Close</button>
  </DialogBox>
</template>
