<script setup lang="ts">
import { useMay } from '@/api/me'
import { clockOf, shortDay } from '@/lib/time'
import { along, clock, FINE, GRID, joined, type DayRow, type Piece } from './week'

/**
 * One day of the week, drawn: drag to open a stretch, its edges, or all of it; the keyboard does the same.
 */
const props = defineProps<{
  row: DayRow
  /** As they are or would be. */
  pieces: Piece[]
  /** The minutes of the day that are drawn. */
  span: Piece
  /** The minute of now, where it is today. */
  nowAt: number | null
  /** While something is asked nothing is dragged. */
  still: boolean
}>()
const emit = defineEmits<{ follow: [pieces: Piece[] | null]; ask: [pieces: Piece[]]; write: []; usual: [] }>()
const may = useMay()
const share = (at: number) => along(props.span, at)
/** A minute of a day on the region's clock. */
const said = (at: number) => clockOf(clock(at))
const grid = (at: number) => Math.round(at / GRID) * GRID
const copied = (pieces: Piece[]) => pieces.map((piece) => ({ ...piece }))

function minuteAt(event: PointerEvent, track: HTMLElement): number {
  const box = track.getBoundingClientRect()
  return props.span.start + ((event.clientX - box.left) / box.width) * (props.span.end - props.span.start)
}
/** The pieces after a drag from one minute to another: a new stretch, an edge, or the whole of one. */
function moved(index: number | null, edge: 'start' | 'end' | 'all', from: number, to: number): Piece[] {
  const pieces = copied(props.row.pieces)
  const own = index === null ? null : pieces[index]
  if (!own) pieces.push({ start: grid(Math.min(from, to)), end: grid(Math.max(from, to)) })
  else if (edge === 'start') own.start = Math.min(Math.max(0, grid(to)), own.end - FINE)
  else if (edge === 'end') own.end = Math.max(grid(to), own.start + FINE)
  else {
    const length = own.end - own.start
    own.start = Math.max(0, grid(own.start + to - from))
    own.end = own.start + length
  }
  return pieces
}
/** Follows a drag that began here; one that went nowhere is a click. */
function drag(event: PointerEvent, index: number | null, edge: 'start' | 'end' | 'all') {
  const track = (event.currentTarget as HTMLElement).closest<HTMLElement>('[data-track]')
  if (!may('hours') || event.button !== 0 || props.still || !track) return
  event.preventDefault()
  const from = minuteAt(event, track)
  let pieces: Piece[] | null = null
  const follow = (move: PointerEvent) => {
    const to = minuteAt(move, track)
    if (!pieces && Math.abs(to - from) < GRID / 2) return
    pieces = moved(index, edge, from, to)
    emit('follow', pieces)
  }
  const done = () => {
    window.removeEventListener('pointermove', follow)
    window.removeEventListener('pointerup', done)
    emit('follow', null)
    if (pieces) emit('ask', joined(pieces))
    else if (index !== null) emit('write')
  }
  window.addEventListener('pointermove', follow)
  window.addEventListener('pointerup', done)
}
/** Arrows move it in a quarter of an hour, with Shift in five minutes; with Alt its end alone. */
function key(event: KeyboardEvent, index: number) {
  if (!may('hours')) return
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  const pieces = copied(props.pieces)
  const own = pieces[index]
  if (!own) return
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault()
    return emit('write')
  }
  if (event.key === 'Delete' || event.key === 'Backspace') pieces.splice(index, 1)
  else if (by) {
    const step = by * (event.shiftKey ? FINE : GRID)
    if (!event.altKey) own.start = Math.max(0, own.start + step)
    own.end = Math.max(own.start + FINE, own.end + step)
  } else return
  event.preventDefault()
  // While it moves by the arrows, pieces that touch stay two.
  emit('ask', by ? pieces : joined(pieces))
}
</script>

<template>
  <div
    data-track
    class="hatch relative my-0.5 h-8 touch-pan-y rounded border border-line"
    :data-day="row.date"
    @pointerdown.self="drag($event, null, 'all')"
  >
    <div
      v-for="(piece, index) in pieces"
      :key="index"
      role="slider"
      tabindex="0"
      class="absolute inset-y-0 flex cursor-grab items-center justify-between overflow-hidden border-x-2 border-petrol bg-petrol-tint px-1.5 text-xs select-none"
      :style="{ left: `${share(piece.start)}%`, width: `${share(piece.end) - share(piece.start)}%` }"
      :aria-label="`${row.name} ${shortDay(row.date)}, open`"
      :aria-valuemin="0"
      :aria-valuemax="2880"
      :aria-valuenow="piece.start"
      :aria-valuetext="`${said(piece.start)} to ${said(piece.end)}`"
      :aria-disabled="!may('hours')"
      @pointerdown.self="drag($event, index, 'all')"
      @keydown="key($event, index)"
    >
      <span
        class="absolute inset-y-0 left-0 w-2 cursor-ew-resize"
        @pointerdown.stop="drag($event, index, 'start')"
      />
      <span class="pointer-events-none">{{ said(piece.start) }}</span>
      <span v-if="share(piece.end) - share(piece.start) > 14" class="pointer-events-none">{{
        said(piece.end)
      }}</span>
      <span
        class="absolute inset-y-0 right-0 w-2 cursor-ew-resize"
        @pointerdown.stop="drag($event, index, 'end')"
      />
    </div>
    <span
      v-if="row.odd !== null"
      class="absolute top-1/2 right-1 -translate-y-1/2 rounded bg-sheet px-1.5 text-xs text-rust"
      >{{ row.label || 'odd day' }}
      <button
        type="button"
        class="btn-link"
        :aria-label="`${row.name} ${shortDay(row.date)} as usual`"
        @click="emit('usual')"
      >
        as usual
      </button></span
    >
    <span
      v-if="nowAt !== null"
      class="pointer-events-none absolute -inset-y-0.5 w-0.5 bg-rust"
      :style="{ left: `${share(nowAt)}%` }"
    />
  </div>
</template>
