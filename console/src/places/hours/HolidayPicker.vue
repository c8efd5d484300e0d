<script setup lang="ts">
import { computed, ref } from 'vue'
import { useHolidays, type HoursDocument } from '@/api/hours'
import { shortDate } from '@/lib/time'

/** Public holidays of the next 13 months, picked by ticking; a day that is an odd day already stands so. */
const props = defineProps<{ exceptions: HoursDocument['exceptions'] }>()
const emit = defineEmits<{ add: [days: HoursDocument['exceptions']]; close: [] }>()
const part = ref('')
const { data, error } = useHolidays(part)
const picked = ref<string[]>([])
const there = (day: string) => props.exceptions.find((one) => one.first <= day && one.last >= day)
const open = computed(() => (data.value?.days ?? []).filter((one) => !there(one.day)))
const all = computed(() => open.value.length > 0 && open.value.every((one) => picked.value.includes(one.day)))
const said = (day: string) => `${shortDate(`${day}T12:00:00Z`, 'UTC')} ${day.slice(0, 4)}`
function take() {
  const days = open.value.filter((one) => picked.value.includes(one.day))
  emit(
    'add',
    days.map((one) => ({ first: one.day, last: one.day, label: one.label, holiday: true, stretches: [] })),
  )
}
</script>

<template>
  <section class="mb-3 rounded-md border border-line p-3" aria-label="Public holidays">
    <div class="mb-2 flex flex-wrap items-end gap-3">
      <label v-if="data?.parts.length" class="grid text-sm text-ink-2"
        >Part of the country<select v-model="part" class="input w-auto!">
          <option value="">all of it</option>
          <option v-for="one in data.parts" :key="one.code" :value="one.code">{{ one.name }}</option>
        </select></label
      >
      <label v-if="open.length" class="flex items-center gap-1.5 pb-1.5"
        ><input type="checkbox" :checked="all" @change="picked = all ? [] : open.map((one) => one.day)" /> all
        of them</label
      >
    </div>
    <p v-if="error" class="font-semibold text-rust" role="alert">{{ error.message }}</p>
    <p v-else-if="data && !data.days.length" class="text-ink-2">
      No public holidays are known for your country.
    </p>
    <ul class="grid gap-x-6 sm:grid-cols-2">
      <li v-for="one in data?.days" :key="one.day">
        <label class="flex items-baseline gap-2 py-1" :class="{ 'text-ink-2': there(one.day) }">
          <input v-if="there(one.day)" type="checkbox" checked disabled />
          <input v-else v-model="picked" type="checkbox" :value="one.day" />
          <span class="min-w-0"
            >{{ one.label }}
            <span class="text-sm text-ink-2"
              >{{ said(one.day) }}{{ there(one.day) ? ' · an odd day already' : '' }}</span
            ></span
          >
        </label>
      </li>
    </ul>
    <p class="mt-2 flex gap-2">
      <button type="button" class="btn" :disabled="!picked.length" @click="take">Close on these days</button>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
    </p>
  </section>
</template>
