<script setup lang="ts">
import { computed } from 'vue'
import type { TouchpointDocument } from '@visitor/generated/document'

type Part = TouchpointDocument['steps'][number]['parts'][number]
const props = defineProps<{ part: Part }>()
const emit = defineEmits<{ edit: [field: string, value: string]; set: [what: string, value: boolean] }>()

/** The one piece of words a part has: its field in the document, how it is called, and what stands in it. */
const words = computed(() => {
  const { part } = props
  switch (part.kind) {
    case 'headline':
      return { field: 'text', name: 'Words', value: part.text, rows: 2 }
    case 'text':
      // Lists and links are edited on the stage, where they can be seen.
      return null
    case 'field':
      return { field: 'label', name: 'Label', value: part.label, rows: 1 }
    case 'consent':
      return { field: 'text', name: 'What they agree to', value: part.text, rows: 2 }
    case 'button':
      return { field: 'label', name: 'Words', value: part.label, rows: 1 }
    default:
      return null
  }
})
const canBeHidden = computed(() => props.part.kind !== 'button' || props.part.does.action !== 'send')
</script>

<template>
  <div class="grid gap-2">
    <template v-if="words">
      <label class="text-sm text-ink-2" :for="`part-${part.id}`">{{ words.name }}</label>
      <textarea
        :id="`part-${part.id}`"
        :value="words.value"
        :rows="words.rows"
        class="input resize-none"
        @input="emit('edit', words.field, ($event.target as HTMLTextAreaElement).value)"
      />
    </template>
    <p v-else-if="part.kind === 'text'" class="text-sm text-ink-2">Write it on the stage, where it stands.</p>
    <p v-else class="text-sm text-ink-2">Here visitors read when somebody answers, by your hours and your promise.</p>
    <label v-if="part.kind === 'field' || part.kind === 'consent'" class="flex items-center gap-2">
      <input type="checkbox" :checked="part.required" @change="emit('set', 'required', ($event.target as HTMLInputElement).checked)" /> must
      be filled in
    </label>
    <label v-if="canBeHidden" class="flex items-center gap-2">
      <input type="checkbox" :checked="part.hidden" @change="emit('set', 'hidden', ($event.target as HTMLInputElement).checked)" /> hidden
    </label>
  </div>
</template>
