<script setup lang="ts">
import { computed } from 'vue'
import { vTyped } from '@/lib/typed'
import type { Addable } from '@/api/touchpoints'
import { dropStep, freshStep } from './fresh'
import type { Change, TouchpointDocument } from '@/api/document'

const props = defineProps<{ document: TouchpointDocument; following: Addable['following'] }>()
const step = defineModel<string>('step', { required: true })
const emit = defineEmits<{ change: Change }>()
const at = computed(() => props.document.steps.findIndex((one) => one.id === step.value))
const current = computed(() => props.document.steps[at.value])
const NAMES: Record<string, string> = { ask: 'Ask', thanks: 'Thanks' }
const nameOf = (one: TouchpointDocument['steps'][number]) => one.name || NAMES[one.id] || one.id

/** A new step stands before the thanks, and after the one that is shown. */
function add() {
  const fresh = freshStep(props.document, props.following)
  emit('change', `step.${fresh.id}`, (document) => document.steps.splice(at.value + 1, 0, fresh))
  step.value = fresh.id
}
function remove() {
  const id = step.value
  const stays = props.document.steps[at.value === 0 ? 1 : at.value - 1]?.id
  emit('change', `drop.${id}`, (document) => dropStep(document, id))
  if (stays) step.value = stays
}
function move(by: number) {
  emit('change', 'steps', (document) => {
    const [moved] = document.steps.splice(at.value, 1)
    if (moved) document.steps.splice(at.value + by, 0, moved)
  })
}
function rename(event: Event) {
  const name = (event.target as HTMLInputElement).value
  emit('change', 'step-name', (document) => {
    const found = document.steps.find((one) => one.id === step.value)
    if (found) found.name = name.slice(0, 60)
  })
}
</script>

<template>
  <div class="mb-3">
    <div class="flex flex-wrap gap-1" role="group" aria-label="Step">
      <button
        v-for="one in document.steps"
        :key="one.id"
        type="button"
        class="btn min-w-16 flex-1 justify-center px-2!"
        :class="{ '!border-petrol text-petrol': step === one.id }"
        :aria-pressed="step === one.id"
        @click="step = one.id"
      >
        {{ nameOf(one) }}
      </button>
      <button type="button" class="btn px-2!" @click="add">+ Step</button>
    </div>
    <details v-if="current && document.steps.length > 1" class="mt-1 text-sm">
      <summary class="text-ink-2">This step</summary>
      <span class="mt-1 flex gap-1">
        <input
          v-typed="current.name"
          class="input"
          :placeholder="nameOf(current)"
          maxlength="60"
          aria-label="Name of the step"
          @input="rename"
        />
        <button
          type="button"
          class="btn px-2!"
          :disabled="at === 0"
          aria-label="Move the step to the left"
          @click="move(-1)"
        >
          ←
        </button>
        <button
          type="button"
          class="btn px-2!"
          :disabled="at === document.steps.length - 1"
          aria-label="Move the step to the right"
          @click="move(1)"
        >
          →
        </button>
        <button type="button" class="btn px-2! text-rust" @click="remove">Remove</button>
      </span>
    </details>
  </div>
</template>
