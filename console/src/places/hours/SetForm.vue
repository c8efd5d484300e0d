<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import {
  bringHoursBack,
  dropHours,
  followHours,
  renameHours,
  useSaveHours,
  whatFollows,
  wouldMove,
  type HoursDocument,
  type HoursSet,
} from '@/api/hours'
import { useKnownSites } from '@/api/sites'
import { useForm } from '@/parts/form'
import { useClock } from '@/lib/clock'
import { copyOf, useDraft } from '@/lib/draft'
import { useNotices } from '@/lib/notices'
import { inWeekOrder, saidTime } from '@/lib/time'
import { vTyped } from '@/lib/typed'
import ClashBox from '@/parts/ClashBox.vue'
import ErrorBox from '@/parts/ErrorBox.vue'
import CalendarIn from './CalendarIn.vue'
import ExceptionRows from './ExceptionRows.vue'
import GivenOut from './GivenOut.vue'
import HolidayPicker from './HolidayPicker.vue'
import StretchRows from './StretchRows.vue'
import WeekView from './WeekView.vue'
import WrittenWeek from './WrittenWeek.vue'
import { vTakesFocus } from '@/lib/focus'
import { WEEKDAYS, type Weekday } from '@/lib/names'

/** One named set of hours: its week, its odd days, its name, and the sites that go by it. */
const props = defineProps<{ set: HoursSet; others: HoursSet[] }>()
const emit = defineEmits<{ changed: [] }>()
const save = useSaveHours()
const { zone, now } = useClock()
const notices = useNotices()
const { data: sites } = useKnownSites()
const { error, fields, busy, run, clear } = useForm()
const about = useForm()
const { draft, base, changed, elsewhere, afresh, kept } = useDraft(() => props.set.document)
const ofThese = `hours ${props.set.id}`
const ofDay = (day: Weekday) =>
  draft.value.week.map((one, at) => ({ one, at })).filter(({ one }) => one.day === day)
const add = (day: Weekday) => draft.value.week.push({ day, from: '09:00', to: '17:00' })
/** Errors of a day's stretches, by their place in the week. */
const wrong = (at: number) => fields.value[`hours.week.${at}.from`] ?? fields.value[`hours.week.${at}.to`]

/** Due times that this would move are said before it is saved. */
const moves = ref<Awaited<ReturnType<typeof wouldMove>>>([])
const asks = async (document: HoursDocument) =>
  wouldMove(props.set.id, { document, based_on: base.value, all_the_same: true }).catch(() => [])
/** Saves what was made from `based_on`; what others have changed since stays. */
async function put(document: HoursDocument, based_on: HoursDocument, all_the_same = false) {
  const sent = copyOf(document)
  await save.mutateAsync({ id: props.set.id, edit: { document: sent, based_on, all_the_same } })
  await nextTick()
  kept(sent)
}
const look = useDebounceFn(async () => (moves.value = changed.value ? await asks(draft.value) : []), 400)
watch(() => JSON.stringify([draft.value, props.set.document]), look)
async function keep(allTheSame = false) {
  const moved = await asks(draft.value)
  notices.past(ofThese)
  await put(draft.value, base.value, allTheSame)
  const times =
    moved.length === 1
      ? 'One due time has moved.'
      : moved.length
        ? `${moved.length} due times have moved.`
        : ''
  notices.say(`Saved. Visitors are told by the new hours within a second. ${times}`)
}
/** One after the other: each is made from what the one before has kept. */
let line: Promise<unknown> = Promise.resolve()
const inTurn = (work: () => Promise<unknown>) => (line = line.then(() => run(work)))
let turns = 0
/**
 * A change that was drawn is kept at once, says what follows it, and can be undone; not where due times move.
 */
function keepAtOnce(document: HoursDocument, words: string) {
  const turn = ++turns
  const was = copyOf(draft.value)
  draft.value = document
  notices.past(ofThese)
  void inTurn(async () => {
    // What moves due times is looked at first, and kept by the button.
    if ((moves.value = await asks(document)).length) return
    await put(document, base.value)
    const follows = await whatFollows(props.set.id)
    // Of several in a row the last can be taken back.
    if (turn !== turns) return
    notices.say(`${words}. ${follows}`, {
      about: ofThese,
      undo: () => put(was, document),
    })
  })
}
/** What stands there, in place of what is not saved. */
function take() {
  afresh()
  clear()
  emit('changed')
}
const bringing = ref<'holidays' | 'calendar' | null>(null)
/** Days that were brought in are kept at once, as what is drawn. */
function taken(exceptions: HoursDocument['exceptions'], words: string) {
  keepAtOnce({ ...copyOf(draft.value), exceptions }, words)
  bringing.value = null
}
const daysSaid = (count: number) => (count === 1 ? 'one odd day' : `${count} odd days or spans`)
const told = (work: () => Promise<unknown>, words: string) =>
  about.run(async () => {
    await work()
    emit('changed')
    notices.say(words)
  })
const instead = ref(props.others[0]?.id)
const drop = (other?: number) =>
  about.run(async () => {
    await dropHours(props.set.id, other)
    emit('changed')
    notices.say(`${props.set.name} is deleted.`, {
      undo: () => bringHoursBack(props.set.id),
    })
  })
function rename(event: Event) {
  const name = (event.target as HTMLInputElement).value
  if (name.trim() && name !== props.set.name) void told(() => renameHours(props.set.id, name), 'Renamed.')
}
</script>

<template>
  <div class="sheet p-5">
    <div class="mb-4 flex flex-wrap items-end gap-x-5 gap-y-2 border-b border-line-2 pb-4">
      <label class="grid text-sm text-ink-2"
        >What they are called<input v-typed="set.name" class="input w-56!" maxlength="80" @change="rename"
      /></label>
      <fieldset v-if="sites?.length" class="flex flex-wrap items-center gap-x-4">
        <legend class="text-sm text-ink-2">Main hours of</legend>
        <label v-for="one in sites" :key="one.id" class="flex items-center gap-1.5">
          <input
            type="checkbox"
            :checked="set.sites.includes(one.name)"
            :disabled="set.sites.includes(one.name)"
            @change="told(() => followHours(one.id, set.id), `${one.name} goes by ${set.name} now.`)"
          />
          {{ one.name }}
        </label>
      </fieldset>
      <button v-if="others.length" type="button" class="btn ml-auto text-rust" @click="drop()">
        Delete them
      </button>
      <form
        v-if="about.fields.value.instead"
        v-takes-focus
        class="flex w-full items-end gap-2"
        novalidate
        @submit.prevent="drop(instead)"
      >
        <label class="grid text-sm text-ink-2"
          >What follows them goes by<select v-model="instead" class="input w-56!">
            <option v-for="one in others" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select></label
        >
        <button class="btn text-rust">Delete {{ set.name }}</button>
        <button type="button" class="btn" @click="about.clear()">Keep them</button>
      </form>
      <p v-if="about.error.value" class="w-full font-semibold text-rust" role="alert">
        {{ Object.values(about.fields.value)[0] ?? about.error.value.message }}
      </p>
    </div>
    <form novalidate :aria-label="set.name" @submit.prevent="inTurn(() => keep())">
      <h2 class="mb-2">The week</h2>
      <WeekView :document="draft" @keep="keepAtOnce" />
      <h3 class="mt-4 mb-1 font-semibold">In writing</h3>
      <WrittenWeek @read="draft.week = $event" />
      <div
        v-for="[day, name] in inWeekOrder(Object.entries(WEEKDAYS) as [Weekday, string][])"
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
      <p class="my-2 text-sm text-ink-2">
        Write times as you like: 8:30, 9am, 17.30. An end before its start runs past midnight.
      </p>
      <h2 class="mt-5 mb-2">Odd days</h2>
      <ExceptionRows v-model="draft.exceptions" :errors="fields" />
      <div v-if="!bringing" class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="btn" @click="bringing = 'holidays'">Public holidays …</button>
        <button type="button" class="btn" @click="bringing = 'calendar'">Bring in a calendar …</button>
      </div>
      <HolidayPicker
        v-if="bringing === 'holidays'"
        class="mt-2"
        :exceptions="draft.exceptions"
        @add="
          taken(
            [...draft.exceptions, ...$event].sort((a, b) => a.first.localeCompare(b.first)),
            `Closed on ${daysSaid($event.length)}`,
          )
        "
        @close="bringing = null"
      />
      <CalendarIn
        v-if="bringing === 'calendar'"
        class="mt-2"
        :document="draft"
        @take="(all, count) => taken(all, `Taken: ${daysSaid(count)}`)"
        @close="bringing = null"
      />
      <ClashBox :error="error" @mine="inTurn(() => keep(true))" @theirs="take">
        <ErrorBox v-if="!Object.keys(fields).length" :error="error" />
      </ClashBox>
      <p v-if="fields['hours.exceptions']" class="font-semibold text-rust" role="alert">
        {{ fields['hours.exceptions'] }}
      </p>
      <div class="mt-4 flex flex-wrap items-center gap-3">
        <button class="btn btn-main" :disabled="busy || !changed">Save the hours</button>
        <button v-if="changed" type="button" class="btn" @click="take">Put back</button>
        <span v-if="changed" class="text-brass">not saved yet</span>
        <span v-if="elsewhere" class="text-sm text-ink-2"
          >Somebody else has saved these hours meanwhile; yours are put together with that.</span
        >
      </div>
      <div v-if="changed && moves.length" class="mt-3 rounded-md bg-brass-tint px-3 py-2" role="status">
        <p class="font-semibold">
          {{ moves.length === 1 ? 'One due time moves' : `${moves.length} due times move` }} when you save:
          the open time that is left stays the same.
        </p>
        <ul class="mt-1">
          <li v-for="one in moves.slice(0, 12)" :key="one.id">
            <span dir="auto">{{ one.name }}</span>: {{ saidTime(one.was, now, zone) }} →
            <strong>{{ saidTime(one.now, now, zone) }}</strong>
          </li>
          <li v-if="moves.length > 12" class="text-ink-2">and {{ moves.length - 12 }} more</li>
        </ul>
      </div>
    </form>
    <GivenOut :id="set.id" />
  </div>
</template>
