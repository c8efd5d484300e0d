<script setup lang="ts">
import { useMay } from '@/api/me'
import { computed, ref } from 'vue'
import type { HoursDocument } from '@/api/hours'
import { useClock } from '@/lib/clock'
import { addDays, toLocal } from '@/lib/local'
import { clockOf, shortDay, weekBegin } from '@/lib/time'
import {
  along,
  asUsual,
  bounds,
  clock,
  closedOver,
  everyWeek,
  joined,
  lengthOf,
  onlyOn,
  weekOf,
  type DayRow,
  type Piece,
} from './week'
import CloseDays from './CloseDays.vue'
import DayTrack from './DayTrack.vue'
import DayWritten from './DayWritten.vue'

/**
 * A week as it really is: drag on a row to open a stretch, its edges, or all of it; the keyboard does the
 * same.
 */
const may = useMay()
const props = defineProps<{ document: HoursDocument }>()
const emit = defineEmits<{ keep: [document: HoursDocument, words: string] }>()
const { now } = useClock()
const local = computed(() => toLocal(now.value.toISOString(), props.document.timezone))
const today = computed(() => local.value.slice(0, 10))
const shift = ref(0)
const begins = computed(() => addDays(weekBegin(today.value), 7 * shift.value))
const rows = computed(() => weekOf(props.document, begins.value))
/** A minute of a day on the region's clock. */
const told = (at: number) => clockOf(clock(at))
const asked = ref<{ row: DayRow; pieces: Piece[] } | null>(null)
/** What is asked about stands on the rows as well; while something is dragged they keep their scale. */
const span = computed(() => {
  const asking = asked.value
  return bounds(
    rows.value.map((one) =>
      asking?.row.date === one.date ? { ...one, pieces: [...one.pieces, ...asking.pieces] } : one,
    ),
  )
})
const hours = computed(() => {
  const found = []
  for (let at = span.value.start; at <= span.value.end; at += 120) found.push(at)
  return found
})
const share = (at: number) => along(span.value, at)
const short = shortDay
const nowAt = computed(() => Number(local.value.slice(11, 13)) * 60 + Number(local.value.slice(14, 16)))

/** What is being changed and not said yet for how long: a row with its pieces as they would be. */
const changing = ref<{ date: string; pieces: Piece[] } | null>(null)
const label = ref('')
const shown = (row: DayRow) =>
  changing.value?.date === row.date
    ? changing.value.pieces
    : asked.value?.row.date === row.date
      ? asked.value.pieces
      : row.pieces
const same = (one: Piece[], other: Piece[]) => JSON.stringify(joined(one)) === JSON.stringify(joined(other))

function ask(row: DayRow, pieces: Piece[]) {
  changing.value = null
  asked.value = same(row.pieces, pieces) ? null : { row, pieces }
  label.value = row.label
}
const said = (pieces: Piece[]) =>
  pieces.map((one) => `${told(one.start)}–${told(one.end)}`).join(' and ') || 'closed'
function always() {
  if (!asked.value) return
  const { row, pieces } = asked.value
  // An odd day on that very date would go on hiding what was just drawn.
  const base = row.odd === null ? props.document : asUsual(props.document, row.date)
  emit('keep', everyWeek(base, row.day, pieces), `Every ${row.name}: ${said(pieces)}`)
  asked.value = null
}
function once() {
  if (!asked.value) return
  const { row, pieces } = asked.value
  emit(
    'keep',
    onlyOn(props.document, row.date, pieces, label.value.trim()),
    `${row.name} ${short(row.date)} only: ${said(pieces)}`,
  )
  asked.value = null
}
const usual = (row: DayRow) =>
  emit('keep', asUsual(props.document, row.date), `${row.name} ${short(row.date)} is as usual again`)

/** Days that are marked down the names of the rows, to be closed together. */
const days = ref<{ from: string; to: string } | null>(null)
const closing = ref(false)
const marked = computed(() => {
  const pair = days.value ? [days.value.from, days.value.to].sort() : []
  return { first: pair[0] ?? '', last: pair[1] ?? '' }
})
const isMarked = (date: string) => marked.value.first <= date && date <= marked.value.last
const spanSaid = computed(() => {
  const { first, last } = marked.value
  return first === last ? short(first) : `${short(first)} to ${short(last)}`
})
/** Down the names of the days, by the pointer, or with Shift and an arrow. */
function mark(row: DayRow, event: PointerEvent) {
  if (!may('hours') || event.button !== 0) return
  event.preventDefault()
  closing.value = false
  days.value = { from: row.date, to: row.date }
  const follow = (move: PointerEvent) => {
    const over = document.elementFromPoint(move.clientX, move.clientY)?.closest<HTMLElement>('[data-name]')
    if (over?.dataset.name && days.value) days.value.to = over.dataset.name
  }
  const done = () => {
    window.removeEventListener('pointermove', follow)
    window.removeEventListener('pointerup', done)
    askToClose()
  }
  window.addEventListener('pointermove', follow)
  window.addEventListener('pointerup', done)
}
function extend(row: DayRow, event: KeyboardEvent) {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (!may('hours') || !by || !event.shiftKey) return
  event.preventDefault()
  const from = days.value?.from ?? row.date
  days.value = { from, to: addDays(days.value?.to ?? row.date, by) }
  askToClose()
}
const askToClose = () => (closing.value = true)
function close(name: string, holiday: boolean) {
  const { first, last } = marked.value
  emit('keep', closedOver(props.document, first, last, name, holiday), `Closed ${spanSaid.value}`)
  leave()
}
function leave() {
  closing.value = false
  days.value = null
}

const writing = ref<string | null>(null)
function take(row: DayRow, pieces: Piece[]) {
  writing.value = null
  ask(row, joined(pieces))
}
</script>

<template>
  <section aria-label="The week as it is">
    <div class="mb-1 flex items-center gap-2">
      <button type="button" class="btn px-2!" aria-label="The week before" @click="shift--">‹</button>
      <span class="font-semibold">Week of {{ short(begins) }}</span>
      <button type="button" class="btn px-2!" aria-label="The week after" @click="shift++">›</button>
      <button v-if="shift" type="button" class="btn-link text-sm" @click="shift = 0">This week</button>
    </div>
    <!-- On a phone a day has two lines: its name and how long, and under them the track. -->
    <div
      class="grid grid-cols-[6rem_1fr_4.5rem] items-center gap-x-3 max-sm:grid-flow-row-dense max-sm:grid-cols-[1fr_auto]"
    >
      <span />
      <span class="relative h-5 text-xs text-ink-2 max-sm:col-span-2" aria-hidden="true">
        <span
          v-for="at in hours"
          :key="at"
          class="absolute -translate-x-1/2 whitespace-nowrap"
          :style="{ left: `${share(at)}%` }"
          >{{ told(at).replace(':00', '') }}</span
        >
      </span>
      <span />
      <template v-for="row in rows" :key="row.date">
        <button
          type="button"
          class="touch-none rounded px-1 py-1 text-left whitespace-nowrap select-none"
          :class="{ 'font-bold text-petrol': row.date === today, 'bg-petrol-tint': isMarked(row.date) }"
          :data-name="row.date"
          :disabled="!may('hours')"
          :aria-pressed="isMarked(row.date)"
          @pointerdown="mark(row, $event)"
          @click="$event.detail === 0 && ((days = { from: row.date, to: row.date }), askToClose())"
          @keydown="extend(row, $event)"
        >
          {{ row.name.slice(0, 3) }} {{ short(row.date)
          }}<span class="sr-only">: close it, or with Shift and an arrow more days</span>
        </button>
        <DayTrack
          class="max-sm:col-span-2"
          :row="row"
          :pieces="shown(row)"
          :span="span"
          :now-at="row.date === today ? nowAt : null"
          :still="!!asked"
          @follow="changing = $event && { date: row.date, pieces: $event }"
          @ask="ask(row, $event)"
          @write="writing = row.date"
          @usual="usual(row)"
        />
        <button
          type="button"
          class="text-left text-sm text-ink-2 hover:underline"
          @click="writing = row.date"
        >
          {{ lengthOf(shown(row)) }}<span class="sr-only">. Write the hours of {{ row.name }}</span>
        </button>
        <DayWritten
          v-if="writing === row.date"
          class="col-span-full"
          :row="row"
          @take="take(row, $event)"
          @cancel="writing = null"
        />
        <div
          v-if="asked?.row.date === row.date"
          class="col-span-full my-1 grid gap-2 rounded-md bg-petrol-wash p-2"
          role="group"
          :aria-label="`How long ${row.name} is to be so`"
        >
          <p>
            <strong>{{ said(asked.pieces) }}</strong> — for how long?
          </p>
          <span class="flex flex-wrap items-end gap-2">
            <button type="button" class="btn btn-main" @click="always">Every {{ row.name }}</button>
            <button type="button" class="btn" @click="once">
              This {{ row.name }} only, {{ short(row.date) }}
            </button>
            <label class="grid text-sm text-ink-2"
              >What it is<input
                v-model="label"
                class="input w-44!"
                placeholder="if it has a name"
                maxlength="80"
            /></label>
            <button type="button" class="btn" @click="asked = null">Leave it</button>
          </span>
          <p class="text-sm text-ink-2">
            Every {{ row.name }} changes the week from now on{{
              row.odd !== null ? `, and ${short(row.date)} is as usual again` : ''
            }}. This one only makes {{ short(row.date) }} an odd day, and the week stays.
          </p>
        </div>
      </template>
    </div>
    <CloseDays v-if="closing" :key="spanSaid" :said="spanSaid" @close="close" @leave="leave" />
    <p class="mt-1 text-sm text-ink-2">
      Drag on a row to open a stretch, or an edge to move it; a click lets you write. Past 24 runs into the
      next day. Drag down the names of the days to close several.
    </p>
  </section>
</template>
