<script setup lang="ts">
import { SHORT_WEEKDAYS, type Weekday } from '@/lib/names'
import { inWeekOrder } from '@/lib/time'
import { useHours } from '@/api/hours'
import WhenBox from '@/parts/WhenBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import type { Sentence } from './sentence'

/** During which times: dates, weekdays, times of day, while open or closed. */
const props = defineProps<{ sentence: Sentence }>()
const emit = defineEmits<{ set: [patch: Partial<Sentence>] }>()
const { data: hours } = useHours()
type During = Sentence['during']
const change = (patch: Partial<During>) => emit('set', { during: { ...props.sentence.during, ...patch } })
const CLOCKS = { business: 'by your clock', visitor: 'by the visitor’s clock' }
const ONLY = {
  '': 'whether you are open or not',
  open: 'only while you are open',
  closed: 'only while you are closed',
}
function times(patch: { start?: string | null; end?: string | null }) {
  const next = { start: props.sentence.during.start, end: props.sentence.during.end, ...patch }
  if (!patch.start && 'start' in patch) return change({ start: null, end: null })
  if (!patch.end && 'end' in patch) return change({ start: null, end: null })
  change({
    start: next.start ?? '09:00',
    end: next.end ?? (next.start && next.start >= '17:00' ? '23:00' : '17:00'),
  })
}
function day(name: Weekday, on: boolean) {
  const all = Object.keys(SHORT_WEEKDAYS) as Weekday[]
  change({ days: all.filter((one) => (one === name ? on : props.sentence.during.days.includes(one))) })
}
</script>

<template>
  <div class="grid gap-3">
    <fieldset class="grid grid-cols-2 gap-2">
      <legend class="font-semibold">Dates</legend>
      <label class="text-sm"
        >from<WhenBox
          :value="sentence.during.first"
          @set="change({ first: $event, ...($event ? {} : { first_time: null }) })"
      /></label>
      <label class="text-sm"
        >to, that day too<WhenBox
          :value="sentence.during.last"
          @set="change({ last: $event, ...($event ? {} : { last_time: null }) })"
      /></label>
      <label class="text-sm" :class="{ invisible: !sentence.during.first }"
        >from what time that day<WhenBox
          :value="sentence.during.first_time"
          kind="time"
          @set="change({ first_time: $event })"
      /></label>
      <label class="text-sm" :class="{ invisible: !sentence.during.last }"
        >until what time that day<WhenBox
          :value="sentence.during.last_time"
          kind="time"
          @set="change({ last_time: $event })"
      /></label>
    </fieldset>
    <fieldset class="flex flex-wrap gap-1">
      <legend class="font-semibold">Weekdays</legend>
      <button
        v-for="[key, name] in inWeekOrder(Object.entries(SHORT_WEEKDAYS) as [Weekday, string][])"
        :key="key"
        type="button"
        class="btn px-2!"
        :class="{ '!border-petrol bg-petrol-wash! text-petrol': sentence.during.days.includes(key) }"
        :aria-pressed="sentence.during.days.includes(key)"
        @click="day(key, !sentence.during.days.includes(key))"
      >
        {{ name }}
      </button>
    </fieldset>
    <fieldset class="grid grid-cols-2 gap-2">
      <legend class="font-semibold">Times of day</legend>
      <label class="text-sm"
        >between<WhenBox :value="sentence.during.start" kind="time" @set="times({ start: $event })"
      /></label>
      <label class="text-sm"
        >and<WhenBox :value="sentence.during.end" kind="time" @set="times({ end: $event })"
      /></label>
    </fieldset>
    <SelectBox
      label="Whose clock"
      :value="sentence.during.clock"
      :options="CLOCKS"
      @set="change({ clock: $event as During['clock'] })"
    />
    <SelectBox
      label="While open or closed"
      :value="sentence.during.only ?? ''"
      :options="ONLY"
      @set="change({ only: ($event || null) as During['only'] })"
    />
    <select
      v-if="sentence.during.only && hours?.others.length"
      class="input"
      aria-label="By which hours"
      :value="sentence.during.hours ?? ''"
      @change="change({ hours: Number(($event.target as HTMLSelectElement).value) || null })"
    >
      <option value="">by the main hours</option>
      <option v-for="one in hours?.others" :key="one.id" :value="one.id">by {{ one.name }}</option>
    </select>
  </div>
</template>
