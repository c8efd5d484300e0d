<script setup lang="ts">
import { useMay } from '@/api/me'
import { computed, nextTick, ref } from 'vue'
import { readWeek, type HoursDocument } from '@/api/hours'
import { useClock } from '@/lib/clock'
import { addDays, toLocal } from '@/lib/local'
import { clockOf, shortDay, weekBegin } from '@/lib/time'
import {
  asUsual,
  bounds,
  clock,
  closedOver,
  everyWeek,
  FINE,
  GRID,
  joined,
  lengthOf,
  onlyOn,
  pieceOf,
  weekOf,
  type DayRow,
  type Piece,
} from './week'

/** A week as it really is: drag on a row to open a stretch, its edges, or all of it; the keyboard does the same. */
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
  return bounds(rows.value.map((one) => (asking?.row.date === one.date ? { ...one, pieces: [...one.pieces, ...asking.pieces] } : one)))
})
const hours = computed(() => {
  const found = []
  for (let at = span.value.start; at <= span.value.end; at += 120) found.push(at)
  return found
})
const share = (at: number) => Math.min(100, (100 * (at - span.value.start)) / (span.value.end - span.value.start))
const short = shortDay
const nowAt = computed(() => Number(local.value.slice(11, 13)) * 60 + Number(local.value.slice(14, 16)))

/** What is being changed and not said yet for how long: a row with its pieces as they would be. */
const changing = ref<{ date: string; pieces: Piece[] } | null>(null)
const label = ref('')
const shown = (row: DayRow) =>
  changing.value?.date === row.date ? changing.value.pieces : asked.value?.row.date === row.date ? asked.value.pieces : row.pieces
const same = (one: Piece[], other: Piece[]) => JSON.stringify(joined(one)) === JSON.stringify(joined(other))

function ask(row: DayRow, pieces: Piece[]) {
  changing.value = null
  asked.value = same(row.pieces, pieces) ? null : { row, pieces: joined(pieces) }
  label.value = row.label
}
const said = (pieces: Piece[]) => pieces.map((one) => `${told(one.start)}–${told(one.end)}`).join(' and ') || 'closed'
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
  emit('keep', onlyOn(props.document, row.date, pieces, label.value.trim()), `${row.name} ${short(row.date)} only: ${said(pieces)}`)
  asked.value = null
}
const usual = (row: DayRow) => emit('keep', asUsual(props.document, row.date), `${row.name} ${short(row.date)} is as usual again`)

const grid = (at: number, step = GRID) => Math.round(at / step) * step
function minuteAt(event: PointerEvent, track: HTMLElement): number {
  const box = track.getBoundingClientRect()
  return span.value.start + ((event.clientX - box.left) / box.width) * (span.value.end - span.value.start)
}
/** Follows a drag that began on a row: a new stretch, an edge, or the whole of one. */
function drag(event: PointerEvent, row: DayRow, index: number | null, edge: 'start' | 'end' | 'all') {
  if (!may('hours')) return
  if (event.button !== 0 || asked.value) return
  const track = (event.currentTarget as HTMLElement).closest<HTMLElement>('[data-track]')
  if (!track) return
  event.preventDefault()
  const from = minuteAt(event, track)
  const begun = row.pieces.map((one) => ({ ...one }))
  let moved = false
  const follow = (move: PointerEvent) => {
    const to = minuteAt(move, track)
    if (!moved && Math.abs(to - from) < GRID / 2) return
    moved = true
    const pieces = begun.map((one) => ({ ...one }))
    const own = index === null ? null : pieces[index]
    if (!own) pieces.push({ start: grid(Math.min(from, to)), end: grid(Math.max(from, to)) })
    else if (edge === 'start') own.start = Math.min(Math.max(0, grid(to)), own.end - FINE)
    else if (edge === 'end') own.end = Math.max(grid(to), own.start + FINE)
    else {
      const length = own.end - own.start
      own.start = Math.max(0, grid(own.start + to - from))
      own.end = own.start + length
    }
    changing.value = { date: row.date, pieces }
  }
  const done = () => {
    window.removeEventListener('pointermove', follow)
    window.removeEventListener('pointerup', done)
    if (moved && changing.value) ask(row, changing.value.pieces)
    else if (index !== null) void write(row)
    changing.value = null
  }
  window.addEventListener('pointermove', follow)
  window.addEventListener('pointerup', done)
}
/** Arrows move it in a quarter of an hour, with Shift in five minutes; with Alt its end alone. */
function key(event: KeyboardEvent, row: DayRow, index: number) {
  if (!may('hours')) return
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  const pieces = shown(row).map((one) => ({ ...one }))
  const own = pieces[index]
  if (!own) return
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault()
    return void write(row)
  }
  if (event.key === 'Delete' || event.key === 'Backspace') pieces.splice(index, 1)
  else if (by) {
    const step = by * (event.shiftKey ? FINE : GRID)
    if (!event.altKey) own.start = Math.max(0, own.start + step)
    own.end = Math.max(own.start + FINE, own.end + step)
  } else return
  event.preventDefault()
  changing.value = null
  asked.value = same(row.pieces, pieces) ? null : { row, pieces: event.key.startsWith('Arrow') ? pieces : joined(pieces) }
  label.value = row.label
}

/** Days that are marked down the names of the rows, to be closed together. */
const days = ref<{ from: string; to: string } | null>(null)
const closing = ref(false)
const holiday = ref(false)
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
function askToClose() {
  closing.value = true
  label.value = ''
  holiday.value = false
}
function close() {
  const { first, last } = marked.value
  emit('keep', closedOver(props.document, first, last, label.value.trim(), holiday.value), `Closed ${spanSaid.value}`)
  leave()
}
function leave() {
  closing.value = false
  days.value = null
}

const writing = ref<string | null>(null)
const typed = ref('')
const wrong = ref('')
const field = ref<HTMLInputElement[]>([])
async function write(row: DayRow) {
  writing.value = row.date
  typed.value = row.pieces.map((one) => `${clock(one.start)}-${clock(one.end)}`).join(', ')
  wrong.value = ''
  await nextTick()
  field.value[0]?.focus()
}
async function read(row: DayRow) {
  const text = typed.value.trim()
  try {
    const found = text ? await readWeek(text.split(',').map((one) => `${row.day} also ${one.trim()}`).join('; ')) : [] // prettier-ignore
    writing.value = null
    ask(row, found.map(pieceOf))
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This cannot be read.'
  }
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
    <div class="grid grid-cols-[6rem_1fr_4.5rem] items-center gap-x-3">
      <span />
      <span class="relative h-5 text-xs text-ink-2" aria-hidden="true">
        <span v-for="at in hours" :key="at" class="absolute -translate-x-1/2 whitespace-nowrap" :style="{ left: `${share(at)}%` }">{{
          told(at).replace(':00', '')
        }}</span>
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
          {{ row.name.slice(0, 3) }} {{ short(row.date) }}<span class="sr-only">: close it, or with Shift and an arrow more days</span>
        </button>
        <div
          data-track
          class="hatch relative my-0.5 h-8 touch-none rounded border border-line"
          :data-day="row.date"
          @pointerdown.self="drag($event, row, null, 'all')"
        >
          <div
            v-for="(one, index) in shown(row)"
            :key="index"
            role="slider"
            tabindex="0"
            class="absolute inset-y-0 flex cursor-grab items-center justify-between overflow-hidden border-x-2 border-petrol bg-petrol-tint px-1.5 text-xs select-none"
            :style="{ left: `${share(one.start)}%`, width: `${share(one.end) - share(one.start)}%` }"
            :aria-label="`${row.name} ${short(row.date)}, open`"
            :aria-valuemin="0"
            :aria-valuemax="2880"
            :aria-valuenow="one.start"
            :aria-valuetext="`${told(one.start)} to ${told(one.end)}`"
            :aria-disabled="!may('hours')"
            @pointerdown.self="drag($event, row, index, 'all')"
            @keydown="key($event, row, index)"
          >
            <span class="absolute inset-y-0 left-0 w-2 cursor-ew-resize" @pointerdown.stop="drag($event, row, index, 'start')" />
            <span class="pointer-events-none">{{ told(one.start) }}</span>
            <span v-if="share(one.end) - share(one.start) > 14" class="pointer-events-none">{{ told(one.end) }}</span>
            <span class="absolute inset-y-0 right-0 w-2 cursor-ew-resize" @pointerdown.stop="drag($event, row, index, 'end')" />
          </div>
          <span v-if="row.odd !== null" class="absolute top-1/2 right-1 -translate-y-1/2 rounded bg-sheet px-1.5 text-xs text-rust"
            >{{ row.label || 'odd day' }}
            <button type="button" class="btn-link" :aria-label="`${row.name} ${short(row.date)} as usual`" @click="usual(row)">
              as usual
            </button></span
          >
          <span
            v-if="row.date === today"
            class="pointer-events-none absolute -inset-y-0.5 w-0.5 bg-rust"
            :style="{ left: `${share(nowAt)}%` }"
          />
        </div>
        <button type="button" class="text-left text-sm text-ink-2 hover:underline" @click="write(row)">
          {{ lengthOf(shown(row)) }}<span class="sr-only">. Write the hours of {{ row.name }}</span>
        </button>
        <div
          v-if="writing === row.date"
          class="col-span-3 my-1 flex flex-wrap items-end gap-2 rounded-md bg-petrol-wash p-2"
          @keydown.enter.prevent="read(row)"
        >
          <label class="grid grow text-sm text-ink-2"
            >{{ row.name }} is open<input
              ref="field"
              v-model="typed"
              class="input"
              placeholder="9-17:30, 20-00:30, or nothing for closed"
              :aria-invalid="!!wrong"
          /></label>
          <button type="button" class="btn" @click="read(row)">Take it</button>
          <button type="button" class="btn" @click="writing = null">Cancel</button>
          <p v-if="wrong" class="w-full font-semibold text-rust" role="alert">{{ wrong }}</p>
        </div>
        <div
          v-if="asked?.row.date === row.date"
          class="col-span-3 my-1 grid gap-2 rounded-md bg-petrol-wash p-2"
          role="group"
          :aria-label="`How long ${row.name} is to be so`"
        >
          <p>
            <strong>{{ said(asked.pieces) }}</strong> — for how long?
          </p>
          <span class="flex flex-wrap items-end gap-2">
            <button type="button" class="btn btn-main" @click="always">Every {{ row.name }}</button>
            <button type="button" class="btn" @click="once">This {{ row.name }} only, {{ short(row.date) }}</button>
            <label class="grid text-sm text-ink-2"
              >What it is<input v-model="label" class="input w-44!" placeholder="if it has a name" maxlength="80"
            /></label>
            <button type="button" class="btn" @click="asked = null">Leave it</button>
          </span>
          <p class="text-sm text-ink-2">
            Every {{ row.name }} changes the week from now on{{ row.odd !== null ? `, and ${short(row.date)} is as usual again` : '' }}.
            This one only makes {{ short(row.date) }} an odd day, and the week stays.
          </p>
        </div>
      </template>
    </div>
    <div
      v-if="closing"
      class="my-1 flex flex-wrap items-end gap-2 rounded-md bg-petrol-wash p-2"
      role="group"
      aria-label="Close these days"
    >
      <p class="w-full">
        <strong>Closed {{ spanSaid }}</strong
        >, and the week stays as it is.
      </p>
      <label class="grid text-sm text-ink-2"
        >What it is<input v-model="label" class="input w-52!" placeholder="if it has a name" maxlength="80" @keydown.enter.prevent="close"
      /></label>
      <label class="flex items-center gap-1.5 pb-2"><input v-model="holiday" type="checkbox" /> a holiday</label>
      <button type="button" class="btn btn-main" @click="close">Close {{ spanSaid }}</button>
      <button type="button" class="btn" @click="leave">Leave it</button>
    </div>
    <p class="mt-1 text-sm text-ink-2">
      Drag on a row to open a stretch, or an edge to move it; a click lets you write. Past 24 runs into the next day. Drag down the names of
      the days to close several.
    </p>
  </section>
</template>
