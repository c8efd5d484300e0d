<script setup lang="ts">
import { computed } from 'vue'
import type { TouchpointDocument } from '@visitor/generated/document'
import PartForm from './PartForm.vue'

type Part = TouchpointDocument['steps'][number]['parts'][number]
const props = defineProps<{ document: TouchpointDocument; step: string }>()
const selected = defineModel<string | null>('selected', { required: true })
const emit = defineEmits<{
  edit: [part: string, field: string, value: string]
  change: [what: string, change: (document: TouchpointDocument) => void]
}>()
const parts = computed(() => props.document.steps.find((one) => one.id === props.step)?.parts ?? [])
const INPUTS = { email: 'Email field', text: 'Short field', phone: 'Phone field', long: 'Long field' }

function name(part: Part): string {
  switch (part.kind) {
    case 'headline':
      return 'Headline'
    case 'text':
      return 'Text'
    case 'field':
      return part.name === 'name' ? 'Name field' : INPUTS[part.input]
    case 'consent':
      return 'Consent tick'
    case 'button':
      return part.does.action === 'send' ? 'Button that sends' : 'Button that closes'
    case 'reply':
      return 'When somebody answers'
  }
}
function glimpse(part: Part): string {
  if (part.kind === 'text') return part.html.replace(/<[^>]*>/g, ' ')
  if (part.kind === 'field' || part.kind === 'button') return part.label
  return part.kind === 'reply' ? '' : part.text
}
function set(part: Part, what: string, value: boolean) {
  emit('change', `${part.id}.${what}`, (document) => {
    const found = document.steps.flatMap((one) => one.parts).find((one) => one.id === part.id)
    if (found) Object.assign(found, { [what]: value })
  })
}
</script>

<template>
  <ol class="grid grid-cols-1 gap-1">
    <li
      v-for="part in parts"
      :key="part.id"
      class="min-w-0 rounded-md"
      :class="selected === part.id ? 'border border-l-4 border-petrol bg-sheet' : ''"
    >
      <button
        type="button"
        class="flex w-full items-baseline gap-2 rounded-md px-2.5 py-1.5 text-left hover:bg-petrol-wash"
        :class="{ hatch: part.hidden }"
        :aria-expanded="selected === part.id"
        @click="selected = selected === part.id ? null : part.id"
      >
        <span class="shrink-0 rounded font-semibold" :class="{ 'bg-fog px-1': part.hidden }">{{ name(part) }}</span>
        <span v-if="selected !== part.id" class="min-w-0 truncate text-sm text-ink-2" :class="{ 'rounded bg-fog px-1': part.hidden }">{{
          part.hidden ? 'hidden' : glimpse(part)
        }}</span>
      </button>
      <PartForm
        v-if="selected === part.id"
        class="px-2.5 pb-2.5"
        :part="part"
        @edit="(field, value) => emit('edit', part.id, field, value)"
        @set="(what, value) => set(part, what, value)"
      />
    </li>
  </ol>
</template>
