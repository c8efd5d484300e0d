<script setup lang="ts">
import DoesForm from './fields/DoesForm.vue'
import SelectBox from './fields/SelectBox.vue'
import TickBox from './fields/TickBox.vue'
import WordsBox from './fields/WordsBox.vue'
import type { Change, Does, TouchpointDocument } from './types'

/** The button itself, where the stance is one: what it says and what it does, then its sign. */
defineProps<{ document: TouchpointDocument }>()
const emit = defineEmits<{ change: Change }>()
const SIGNS = {
  none: 'no sign',
  question: 'a question mark',
  phone: 'a telephone',
  mail: 'an envelope',
  message: 'a speech bubble',
  gift: 'a parcel',
}
const PLAIN: Does = {
  action: 'phone',
  next: null,
  address: '',
  asset: null,
  touchpoint: '',
  spot: '',
  channel: '',
  tab: 'same',
  goal: true,
  href: '',
}
</script>

<template>
  <div class="grid gap-2">
    <WordsBox
      data-place="face"
      label="Words on the button"
      :value="document.face.label"
      @set="emit('change', 'face.label', (d) => (d.face.label = $event))"
    />
    <TickBox :value="document.face.does !== null" @set="emit('change', 'face.does', (d) => (d.face.does = $event ? PLAIN : null))"
      >does something at once, instead of opening a card</TickBox
    >
    <DoesForm
      v-if="document.face.does"
      :does="document.face.does"
      :document="document"
      :without="['send', 'step', 'back', 'close']"
      @set="emit('change', 'face.does', (d) => (d.face.does = $event))"
    />
    <SelectBox
      label="Sign on the button"
      :value="document.face.sign"
      :options="SIGNS"
      @set="emit('change', 'face.sign', (d) => (d.face.sign = $event as never))"
    />
  </div>
</template>
