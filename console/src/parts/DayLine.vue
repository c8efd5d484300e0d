<script setup lang="ts">
import { useElementSize, useOnline } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useDay } from '@/api/follow-ups'
import { useClock } from '@/lib/clock'
import { clockTime, shortDate } from '@/lib/time'

const { data: day, isError } = useDay()
const { zone, now } = useClock()
const online = useOnline()
const router = useRouter()

const span = computed(() => {
  const start = Date.parse(day.value?.start ?? '')
  return { start, length: Date.parse(day.value?.end ?? '') - start }
})
/** Where an instant stands on the ribbon, in percent; what lies outside the day stands at its edge. */
function place(at: string | Date): number {
  const share = (100 * (new Date(at).getTime() - span.value.start)) / span.value.length
  return Math.min(100, Math.max(0, share))
}
const stretches = computed(() =>
  (day.value?.stretches ?? []).map((one) => ({
    ...one,
    left: place(one.start),
    width: place(one.end) - place(one.start),
    from: clockTime(one.start, zone.value),
    to: clockTime(one.end, zone.value),
  })),
)
/** The widest closed part of the day after now, where the reply is written. */
const told = computed(() => {
  const edges = [
    place(now.value),
    ...stretches.value
      .filter((one) => one.left + one.width > place(now.value))
      .map((one) => one.left + one.width),
  ]
  const left = Math.max(...edges)
  return left < 78 ? left : null
})
const ribbon = ref<HTMLElement>()
const { width } = useElementSize(ribbon)
const REACH = 12
/**
 * Diamonds that stand too close to be hit apart share one target, which opens the one nearest to the click.
 */
const groups = computed(() => {
  const found: {
    left: number
    right: number
    marks: { id: number; at: number; lane: string }[]
    words: string
  }[] = []
  for (const mark of day.value?.marks ?? []) {
    const at = (place(mark.due) * width.value) / 100
    const words = `${mark.name}, due ${clockTime(mark.due, zone.value)}${mark.lane === 'late' ? ', late' : ''}`
    const last = found[found.length - 1]
    if (last && at - last.right < 2 * REACH + 1) {
      last.marks.push({ id: mark.id, at, lane: mark.lane })
      last.right = at
      last.words += `; ${words}`
    } else found.push({ left: at, right: at, marks: [{ id: mark.id, at, lane: mark.lane }], words })
  }
  return found
})
const FIGURES = 44
/** Whether a diamond would stand on the figures that begin (1) or end (-1) here: the diamond goes first. */
function marked(edge: number, way: 1 | -1): boolean {
  const at = (edge * width.value) / 100
  const on = (mark: number) => way * (mark - at) > -REACH && way * (mark - at) < FIGURES
  return groups.value.some((group) => group.marks.some((mark) => on(mark.at)))
}
function open(group: (typeof groups.value)[number], event: MouseEvent) {
  // A press of a key has no place of its own: it opens the first.
  const box = ribbon.value?.getBoundingClientRect()
  const x = event.detail && box ? event.clientX - box.left : group.left
  const nearest = [...group.marks].sort((one, other) => Math.abs(one.at - x) - Math.abs(other.at - x))[0]
  if (nearest) void router.push(`/follow-up/${nearest.id}`)
}
</script>

<template>
  <section
    aria-label="Today"
    class="flex min-h-[46px] items-center gap-x-4 border-b max-md:flex-wrap max-md:py-1 border-line bg-fog px-5 max-md:px-3"
  >
    <p v-if="isError && (online || !day)" class="text-rust">
      The day line could not be read. It is tried again by itself.
    </p>
    <template v-else-if="day">
      <p class="shrink-0 whitespace-nowrap max-md:shrink max-md:whitespace-normal">
        <strong>{{ shortDate(now, zone) }}, {{ clockTime(now, zone) }}</strong>
        <span class="text-ink-2"> · {{ day.until }}</span>
      </p>
      <div ref="ribbon" class="relative h-[26px] flex-1 max-md:hidden">
        <button
          type="button"
          class="hatch absolute inset-0 overflow-hidden rounded border border-line text-xs"
          @click="router.push('/hours')"
        >
          <span class="sr-only">Opening hours of today</span>
          <span
            v-for="one in stretches"
            :key="one.start"
            class="absolute inset-y-0 flex justify-between border-x-2 border-petrol bg-petrol-tint px-1 py-1"
            :style="{ left: `${one.left}%`, width: `${one.width}%` }"
          >
            <template v-if="one.width > 12"
              ><span :class="{ invisible: marked(one.left, 1) }">{{ one.from }}</span
              ><span :class="{ invisible: marked(one.left + one.width, -1) }">{{ one.to }}</span></template
            >
          </span>
          <span
            v-if="told !== null && day.after_reply"
            class="absolute inset-y-0 my-px truncate rounded bg-fog px-1.5 pt-[3px] text-ink-2"
            :style="{ left: `calc(${told}% + 12px)`, maxWidth: `calc(${100 - told}% - 20px)` }"
          >
            then: “{{ day.after_reply }}”
          </span>
        </button>
        <button
          v-for="group in groups"
          :key="group.marks[0]?.id"
          type="button"
          class="absolute top-1/2 z-10 h-6 -translate-y-1/2"
          :style="{ left: `${group.left - REACH}px`, width: `${group.right - group.left + 2 * REACH}px` }"
          :title="group.words"
          :aria-label="group.words"
          @click="open(group, $event)"
        >
          <span
            v-for="mark in group.marks"
            :key="mark.id"
            class="diamond diamond-full absolute top-1/2 -translate-1/2"
            :class="mark.lane === 'late' ? 'text-rust' : 'text-brass'"
            :style="{ left: `${mark.at - group.left + REACH}px` }"
          />
        </button>
        <span
          class="pointer-events-none absolute -top-1.5 -bottom-1 z-20 w-0.5 -translate-x-1/2 bg-rust"
          :style="{ left: `${place(now)}%` }"
        >
          <span class="absolute -top-0.5 left-1/2 size-2.5 -translate-x-1/2 rounded-full bg-rust" />
        </span>
      </div>
      <p class="ml-auto font-semibold whitespace-nowrap max-md:ml-0 max-md:whitespace-normal">
        <span v-for="name in day.gateways_away" :key="name" class="mr-2 text-rust"
          >{{ name }} does not answer</span
        >
        <RouterLink
          v-for="words in day.nearly_full"
          :key="words"
          to="/business#room"
          class="mr-2 text-rust"
          >{{ words }}</RouterLink
        >
        <RouterLink v-if="day.late" to="/follow-up" class="text-rust">{{ day.late }} late</RouterLink>
        <span v-if="day.late && day.before_closing"> · </span>
        <RouterLink v-if="day.before_closing" to="/follow-up" class="text-brass"
          >{{ day.before_closing }} due before closing</RouterLink
        >
        <span v-if="!day.late && !day.before_closing" class="font-normal text-ink-2"
          >nothing due before closing</span
        >
        <RouterLink
          v-if="day.untouched"
          :to="{ path: '/follow-up', query: { state: 'for-us', untouched: day.untouched_days } }"
          class="ml-2 font-normal text-brass underline"
          >{{ day.untouched >= 100 ? 'over 99' : day.untouched }} untouched for {{ day.untouched_days }} open
          days</RouterLink
        >
        <RouterLink v-if="day.mail_aside" to="/not-on-the-list" class="ml-2 font-normal text-brass underline"
          >{{ day.mail_aside >= 1000 ? 'over 999' : day.mail_aside }} not on the list</RouterLink
        >
        <RouterLink
          v-if="day.made_not_on"
          to="/touchpoints"
          class="ml-2 font-normal text-ink-2 underline max-xl:hidden"
          >{{ day.made_not_on }} made, not on</RouterLink
        >
        <RouterLink
          v-if="day.changed_since_live"
          to="/touchpoints"
          class="ml-2 text-brass underline max-xl:hidden"
          >{{ day.changed_since_live }} changed since live</RouterLink
        >
        <RouterLink v-if="day.ended" to="/touchpoints" class="ml-2 text-brass underline max-xl:hidden"
          >{{ day.ended }} ended</RouterLink
        >
      </p>
    </template>
  </section>
</template>
