<script setup lang="ts">
import { useNotices } from '@/lib/notices'
import { vTyped } from '@/lib/typed'

/** A whole number within bounds; empty gives `null` where that is allowed. */
const props = defineProps<{
  label: string
  value: number | null
  least: number
  most: number
  step?: number
  empty?: string
}>()
const emit = defineEmits<{ set: [value: number | null] }>()
const notices = useNotices()

function change(event: Event) {
  const box = event.target as HTMLInputElement
  const typed = box.value.trim()
  if (!typed && props.empty !== undefined) return emit('set', null)
  const number = Math.round(Number(typed))
  const kept =
    Number.isFinite(number) && typed
      ? Math.min(props.most, Math.max(props.least, number))
      : (props.value ?? props.least)
  box.value = String(kept)
  if (typed && number !== kept)
    notices.say(`${props.label}: it is between ${props.least} and ${props.most}, so ${kept} stands there.`)
  emit('set', kept)
}
</script>

<template>
  <input
    v-typed="value ?? ''"
    type="number"
    class="input w-20!"
    :aria-label="label"
    :min="least"
    :max="most"
    :step="step ?? 1"
    :placeholder="empty"
    @change="change"
  />
</template>
