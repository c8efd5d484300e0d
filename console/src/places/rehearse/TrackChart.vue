<script setup lang="ts">
import { computed } from 'vue'
import type { Rehearsal, Stretch } from '@/api/rehearsals'
import { axis, sayTime } from './deeds'

/** What every touchpoint does over the visit, with a pin to move. */
const props = defineProps<{ played: Rehearsal; pin: number; chosen: number | null; title?: string }>()
const emit = defineEmits<{ pin: [at: number, touchpoint: number | null] }>()
const marks = computed(() => [
  ...props.played.pages.map((one) => one.start),
  ...props.played.tracks.flatMap((track) => track.stretches.flatMap((one) => [one.start, one.end])),
])
const scale = computed(() => axis(marks.value, props.played.length))
const percent = (at: number) => `${(scale.value.place(at) * 100).toFixed(3)}%`
const box = (one: Stretch) => ({
  left: percent(one.start),
  width: `calc(${((scale.value.place(one.end) - scale.value.place(one.start)) * 100).toFixed(3)}% - 2px)`,
})
const LOOKS: Record<string, string> = {
  'on screen': 'bg-petrol text-sheet',
  waits: 'border border-dashed border-brass bg-brass-tint text-brass',
  'waits its turn': 'border border-dashed border-brass bg-brass-tint text-brass',
  'kept back': 'hatch text-ink-2',
}
const words = (one: Stretch) =>
  one.doing === 'on screen'
    ? `${sayTime(one.start)} · ${one.words.replace(/\.$/, '').toLowerCase()}`
    : one.words.replace(/\.$/, '')
function moved(event: MouseEvent, touchpoint: number | null) {
  const area = (event.currentTarget as HTMLElement).getBoundingClientRect()
  emit(
    'pin',
    scale.value.time(Math.min(1, Math.max(0, (event.clientX - area.left) / area.width))),
    touchpoint,
  )
}
function keys(event: KeyboardEvent) {
  const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -10, PageDown: 10 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  emit('pin', Math.min(props.played.length, Math.max(0, props.pin + by)), props.chosen)
}
</script>

<template>
  <figure class="grid grid-cols-[9.5rem_minmax(0,1fr)] gap-x-3" :aria-label="title ?? 'Tracks'">
    <figcaption v-if="title" class="col-span-2 mb-1 font-semibold">{{ title }}</figcaption>
    <span class="text-sm text-ink-2">page</span>
    <div class="relative h-8" @click="moved($event, chosen)">
      <span
        v-for="(page, at) in played.pages"
        :key="at"
        class="absolute top-0 h-6 max-w-40 truncate border-l-2 border-ink-3 pl-1.5 text-sm text-ink-2"
        :style="{ left: percent(page.start) }"
        :title="page.path"
        >{{ page.path
        }}<template v-if="page.visit !== played.pages[at - 1]?.visit && at">
          · visit {{ page.visit }}</template
        ></span
      >
      <span
        role="slider"
        tabindex="0"
        class="absolute -top-3 z-10 -translate-x-1/2 cursor-ew-resize rounded bg-fog px-1 text-sm font-bold text-rust"
        aria-label="Moment"
        :aria-valuenow="Math.round(pin)"
        aria-valuemin="0"
        :aria-valuemax="Math.round(played.length)"
        :aria-valuetext="sayTime(pin)"
        :style="{ left: percent(pin) }"
        @keydown="keys"
        >{{ sayTime(pin) }}</span
      >
    </div>
    <template v-for="track in played.tracks" :key="track.id">
      <button
        type="button"
        class="truncate border-b border-line-2 text-left font-semibold"
        :class="{ 'text-petrol': track.id === chosen }"
        :aria-pressed="track.id === chosen"
        @click="emit('pin', pin, track.id)"
      >
        {{ track.name }}
      </button>
      <div class="relative h-9 cursor-pointer border-b border-line-2" @click="moved($event, track.id)">
        <span
          v-for="(one, at) in track.stretches"
          :key="at"
          class="absolute inset-y-1 overflow-hidden rounded px-1.5 text-sm leading-7 whitespace-nowrap"
          :class="LOOKS[one.doing]"
          :style="box(one)"
          :title="`${sayTime(one.start)}: ${one.words}`"
          ><span class="rounded px-0.5" :class="{ 'bg-fog': one.doing === 'kept back' }">{{
            words(one)
          }}</span></span
        >
        <span
          class="pointer-events-none absolute -inset-y-px w-0.5 bg-rust"
          :style="{ left: percent(pin) }"
        />
      </div>
    </template>
  </figure>
</template>
