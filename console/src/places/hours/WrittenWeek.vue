<script setup lang="ts">
import { ref } from 'vue'
import { readWeek, type HoursDocument } from '@/api/hours'
import { clockOf } from '@/lib/time'
import { useForm } from '@/parts/form'

/**
 * A whole week in one line, as people write it; it is read, shown in the rows below, and kept only with them.
 */
const emit = defineEmits<{ read: [week: HoursDocument['week']] }>()
const { error, fields, busy, run } = useForm()
/** With clocks as the business's region writes them. */
const example = `Mon–Fri ${clockOf('09:00')}–${clockOf('17:30')}, Sat ${clockOf('08:00')}–${clockOf('19:00')}`
const text = ref('')
const said = ref('')
const left = ref<string[]>([])
async function read() {
  const { week, unread } = await readWeek(text.value)
  left.value = unread
  emit('read', week)
  const days = new Set(week.map((one) => one.day)).size
  said.value = week.length
    ? `Read: open on ${days} ${days === 1 ? 'day' : 'days'} of the week, as below.`
    : 'Read: closed all week, as below.'
}
</script>

<template>
  <div class="mb-3">
    <div class="flex flex-wrap items-end gap-2">
      <label class="grid min-w-64 flex-1 text-sm text-ink-2"
        >The whole week in one line<input
          v-model="text"
          class="input"
          :placeholder="example"
          maxlength="1000"
          :aria-invalid="!!error"
          @input="said = ''"
          @keydown.enter.prevent="run(read)"
      /></label>
      <button type="button" class="btn" :disabled="busy || !text.trim()" @click="run(read)">Read it</button>
    </div>
    <p v-if="error" class="mt-1 font-semibold text-rust" role="alert">{{ fields.text ?? error.message }}</p>
    <p v-else-if="said" class="mt-1 text-sm text-moss" role="status">{{ said }}</p>
    <p v-if="said && left.length" class="mt-1 text-sm font-semibold text-rust" role="status">
      Not read: {{ left.map((one) => `“${one}”`).join(', ') }}
    </p>
  </div>
</template>
