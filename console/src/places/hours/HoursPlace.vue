<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useHours, useSaveHours, type HoursDocument } from '@/api/hours'
import { useChangeBusiness, useMe } from '@/api/me'
import { useForm } from '@/places/account/form'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import ExceptionRows from './ExceptionRows.vue'
import PromiseForm from './PromiseForm.vue'
import StretchRows from './StretchRows.vue'

const DAYS = { mon: 'Monday', tue: 'Tuesday', wed: 'Wednesday', thu: 'Thursday', fri: 'Friday', sat: 'Saturday', sun: 'Sunday' } as const
type Day = keyof typeof DAYS
const { data: hours, error: unread, refetch } = useHours()
const { data: me } = useMe()
const save = useSaveHours()
const change = useChangeBusiness()
const notices = useNotices()
const { error, fields, busy, run } = useForm()

const draft = ref<HoursDocument | null>(null)
const before = computed(() => JSON.stringify(hours.value?.main.document))
const changed = computed(() => draft.value !== null && JSON.stringify(draft.value) !== before.value)
watch(
  before,
  (text) => {
    if (text) draft.value = JSON.parse(text) as HoursDocument
  },
  { immediate: true },
)
function ofDay(day: Day) {
  return (draft.value?.week ?? []).map((one, at) => ({ one, at })).filter(({ one }) => one.day === day)
}
function add(day: Day) {
  draft.value?.week.push({ day, from: '09:00', to: '17:00' })
}
/** Errors of a day's stretches, by their place in the week. */
const wrong = (at: number) => fields.value[`hours.week.${at}.from`] ?? fields.value[`hours.week.${at}.to`]

async function keep() {
  if (!draft.value || !hours.value) return
  await save.mutateAsync({ id: hours.value.main.id, document: draft.value })
  notices.say('Saved. Visitors are told by the new hours within a second.')
}
async function keepPromise(minutes: number | null) {
  const business = me.value?.business
  if (!business) return
  await change.mutateAsync({ name: business.name, mail_address: business.mail_address, promise_minutes: minutes })
  notices.say('Saved. New answers are promised by it.')
}
const SITUATIONS: Record<string, string> = {
  open: 'Open',
  'nobody-free': 'Open, nobody free',
  'after-hours': 'After hours',
  holiday: 'Holiday',
}
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <h1 class="mb-4">
      Hours
      <span v-if="hours" class="font-body text-base font-normal text-ink-2"
        >{{ hours.main.name }} · {{ hours.main.document.timezone }}</span
      >
    </h1>
    <ErrorBox :error="unread" :again="() => refetch()" />
    <div v-if="!hours && !unread" class="sheet h-96 opacity-60" aria-busy="true" />
    <div v-if="hours && draft" class="grid max-w-6xl grid-cols-[1fr_22rem] items-start gap-5">
      <form class="sheet p-5" novalidate aria-label="Main hours" @submit.prevent="run(keep)">
        <h2 class="mb-2">The week</h2>
        <div
          v-for="(name, day) in DAYS"
          :key="day"
          class="grid min-h-11 grid-cols-[7rem_1fr_auto] items-start gap-3 border-b border-line-2 py-1.5"
        >
          <span class="pt-1.5 font-semibold">{{ name }}</span>
          <div>
            <p v-if="!ofDay(day).length" class="hatch rounded px-2 py-1.5">
              <span class="rounded bg-sheet px-1.5 text-ink-2">closed</span>
            </p>
            <template v-for="{ one, at } in ofDay(day)" :key="at">
              <StretchRows :stretch="one" :label="name" @remove="draft.week.splice(at, 1)" />
              <p v-if="wrong(at)" class="mb-1 font-semibold text-rust" role="alert">{{ wrong(at) }}</p>
            </template>
          </div>
          <button type="button" class="btn" :aria-label="`Add hours on ${name}`" @click="add(day)">+</button>
        </div>
        <p class="my-2 text-sm text-ink-2">An end at or before its start runs past midnight. 24:00 is midnight at the day’s end.</p>
        <h2 class="mt-5 mb-2">Odd days</h2>
        <ExceptionRows v-model="draft.exceptions" :errors="fields" />
        <ErrorBox v-if="!Object.keys(fields).length" :error="error" />
        <p v-if="fields['hours.exceptions']" class="font-semibold text-rust" role="alert">{{ fields['hours.exceptions'] }}</p>
        <div class="mt-4 flex items-center gap-3">
          <button class="btn btn-main" :disabled="busy || !changed">Save the hours</button>
          <button v-if="changed" type="button" class="btn" @click="draft = JSON.parse(before)">Put back</button>
          <span v-if="changed" class="text-brass">not saved yet</span>
        </div>
      </form>
      <div class="grid gap-5">
        <PromiseForm :minutes="hours.promise_minutes" :now-said="hours.promise_now" @save="keepPromise" />
        <section class="sheet p-5" aria-labelledby="told">
          <h2 id="told" class="mb-2">What visitors are told</h2>
          <dl>
            <div
              v-for="one in hours.told"
              :key="one.situation"
              class="border-l-4 px-3 py-1.5"
              :class="one.in_effect ? 'border-petrol bg-petrol-wash' : 'border-transparent'"
            >
              <dt class="font-semibold">{{ SITUATIONS[one.situation] }} <span v-if="one.in_effect" class="chip ml-1">now</span></dt>
              <dd class="text-ink-2">{{ one.text }}</dd>
            </div>
          </dl>
        </section>
        <section v-if="hours.others.length" class="sheet p-5" aria-labelledby="others">
          <h2 id="others" class="mb-2">Other hours</h2>
          <ul class="text-ink-2">
            <li v-for="one in hours.others" :key="one.id">
              <strong class="text-ink">{{ one.name }}</strong> ·
              {{ [...new Set(one.document.week.map((s) => `${s.from}–${s.to}`))].join(', ') }},
              {{ one.document.week.map((s) => s.day).join(' ') }}
            </li>
          </ul>
        </section>
      </div>
    </div>
  </div>
</template>
