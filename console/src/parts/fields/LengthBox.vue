<script setup lang="ts">
import { ref, useId } from 'vue'
import { readLength, sayLength } from '@/lib/length'
import { vTyped } from '@/lib/typed'

/** A length of time, written as people say it; empty gives `null` where that is allowed. */
const props = defineProps<{
  label: string
  value: number | null
  least: number
  most: number
  empty?: string
}>()
const emit = defineEmits<{ set: [minutes: number | null] }>()
const id = useId()
const wrong = ref('')
function take(event: Event) {
  const text = (event.target as HTMLInputElement).value
  if (!text.trim() && props.empty !== undefined) return ((wrong.value = ''), emit('set', null))
  const minutes = readLength(text)
  if (minutes === null) return void (wrong.value = 'Write it like “3 days”, “5 h 30” or “20 min”.')
  if (minutes < props.least || minutes > props.most)
    return void (wrong.value = `It is between ${sayLength(props.least)} and ${sayLength(props.most)}.`)
  wrong.value = ''
  emit('set', minutes)
}
</script>

<template>
  <div>
    <label :for="id" class="text-sm text-ink-2">{{ label }}</label>
    <input
      :id="id"
      v-typed="value === null ? '' : value ? sayLength(value) : 'at once'"
      class="input"
      :placeholder="empty"
      :aria-invalid="wrong !== ''"
      :aria-describedby="`${id}-wrong`"
      @change="take"
    />
    <p :id="`${id}-wrong`" class="text-sm font-semibold text-rust" aria-live="polite">{{ wrong }}</p>
  </div>
</template>
