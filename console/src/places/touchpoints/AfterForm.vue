<script setup lang="ts">
import { computed } from 'vue'
import type { TouchpointDocument } from '@visitor/generated/document'

const props = defineProps<{ document: TouchpointDocument }>()
const emit = defineEmits<{ change: [what: string, change: (document: TouchpointDocument) => void] }>()
const inquiry = computed(() => props.document.purpose === 'inquiry')
const checked = (event: Event) => (event.target as HTMLInputElement).checked
const value = (event: Event) => (event.target as HTMLInputElement).value
const ownHours = computed(() => (props.document.after.promise_minutes === null ? '' : String(props.document.after.promise_minutes / 60)))

function promise(event: Event) {
  const minutes = Math.round(Number(value(event)) * 60)
  emit('change', 'promise', (document) => (document.after.promise_minutes = minutes >= 1 ? Math.min(minutes, 43_200) : null))
}
</script>

<template>
  <section class="mt-4" aria-labelledby="after">
    <h2 id="after" class="mb-2 font-body! text-base! text-ink-2">After they send it</h2>
    <div class="grid gap-2">
      <label class="flex items-start gap-2">
        <input
          type="checkbox"
          class="mt-1"
          :checked="inquiry || document.after.follow_up"
          :disabled="inquiry"
          @change="emit('change', 'follow_up', (d) => (d.after.follow_up = checked($event)))"
        />
        <span
          >Asks for follow-up<span class="block text-sm text-ink-2">{{
            inquiry ? 'A question always does.' : 'They are told when somebody answers, and it is due on your list.'
          }}</span></span
        >
      </label>
      <p v-if="inquiry || document.after.follow_up" class="flex items-center gap-2">
        <label for="own-promise">within</label
        ><input
          id="own-promise"
          type="number"
          min="0.5"
          step="0.5"
          class="input w-20!"
          :value="ownHours"
          placeholder="as set"
          @change="promise"
        />
        open hours
      </p>
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="document.after.thank_you.send"
          @change="emit('change', 'thank_you', (d) => (d.after.thank_you.send = checked($event)))"
        />
        Thank them by mail</label
      >
      <template v-if="document.after.thank_you.send">
        <label class="text-sm text-ink-2" for="thanks-subject">Its subject</label>
        <input
          id="thanks-subject"
          class="input"
          :value="document.after.thank_you.subject"
          @input="emit('change', 'subject', (d) => (d.after.thank_you.subject = value($event)))"
        />
        <label class="text-sm text-ink-2" for="thanks-text">Words of the mail</label>
        <textarea
          id="thanks-text"
          rows="4"
          class="input"
          :value="document.after.thank_you.text"
          @input="emit('change', 'thanks-text', (d) => (d.after.thank_you.text = value($event)))"
        />
      </template>
    </div>
  </section>
</template>
