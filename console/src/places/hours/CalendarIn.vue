<script setup lang="ts">
import { computed, ref } from 'vue'
import { lookAtCalendar, type CalendarSaid, type HoursDocument } from '@/api/hours'
import { shortDate } from '@/lib/time'
import { useForm } from '@/parts/form'

/** A calendar file is looked at first: every day that it would close or open, and what it replaces. */
const props = defineProps<{ document: HoursDocument }>()
const emit = defineEmits<{ take: [exceptions: HoursDocument['exceptions'], count: number]; close: [] }>()
const { error, busy, run } = useForm()
const said = ref<CalendarSaid | null>(null)
const fresh = computed(() => said.value?.coming.filter((one) => !one.known).length ?? 0)
const picked = (event: Event) =>
  run(async () => {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    said.value = null
    if (file) said.value = await lookAtCalendar(file, props.document)
    input.value = ''
  })
const date = (day: string) => shortDate(`${day}T12:00:00Z`, 'UTC')
const days = (one: CalendarSaid['coming'][number]) =>
  `${date(one.first)}${one.last === one.first ? '' : ` – ${date(one.last)}`} ${one.last.slice(0, 4)}`
const would = (one: CalendarSaid['coming'][number]) =>
  one.would === 'closed' ? 'closes' : `opens ${one.would}`
</script>

<template>
  <section class="mb-3 rounded-md border border-line p-3" aria-label="A calendar file">
    <label class="grid gap-1 text-sm text-ink-2"
      >A calendar file (.ics): whole days are closed, times are open for just these
      <input type="file" accept=".ics,text/calendar" :disabled="busy" @change="picked"
    /></label>
    <p v-if="error" class="mt-2 font-semibold text-rust" role="alert">
      {{ error.message }} Nothing was changed.
    </p>
    <template v-if="said">
      <p v-if="!said.coming.length" class="mt-2" role="status">
        There are no odd days of the next 13 months in it.
      </p>
      <ul v-else class="mt-2" aria-label="What it would do">
        <li
          v-for="(one, at) in said.coming"
          :key="at"
          class="border-t border-line-2 py-1.5"
          :class="{ 'text-ink-2': one.known }"
        >
          <strong>{{ days(one) }}</strong> {{ would(one)
          }}<template v-if="one.label">: {{ one.label }}</template>
          <span class="block text-sm text-ink-2">{{
            one.known
              ? 'is so already'
              : one.replaces.length
                ? `in place of ${one.replaces.map((each) => `“${each}”`).join(' and ')}`
                : `usually ${one.usual}`
          }}</span>
        </li>
      </ul>
    </template>
    <p v-if="said?.usual.length" class="mt-2 text-sm text-ink-2">
      Left out, since it repeats every day or week and says what is usual:
      {{ said.usual.map((one) => `“${one}”`).join(', ') }}. Change the week itself for that.
    </p>
    <p class="mt-2 flex gap-2">
      <button v-if="said && fresh" type="button" class="btn" @click="emit('take', said.exceptions, fresh)">
        Take them
      </button>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
    </p>
  </section>
</template>
