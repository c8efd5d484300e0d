<script setup lang="ts">
import { onKeyStroke, useLocalStorage, useMediaQuery } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useFollowUps, type Item, type Wanted } from '@/api/follow-ups'
import { useQuarantine } from '@/api/quarantine'
import { useClock } from '@/lib/clock'
import { keepFocus } from '@/lib/focus'
import { useKeys } from '@/lib/keys'
import { clockTime, saidTime, shortDate } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import { opened, picked } from '@/parts/find'
import { useFirstSteps } from '@/api/first-steps'
import DoneLately from './DoneLately.vue'
import FilterSentence from './FilterSentence.vue'
import FirstSteps from './FirstSteps.vue'
import ItemList from './ItemList.vue'
import NothingHere from './NothingHere.vue'
import PersonPane from './PersonPane.vue'
import WaitingList from './WaitingList.vue'
import SeveralBar from './SeveralBar.vue'
import { queryOf, wantedOf } from './wanted'

const route = useRoute()
const router = useRouter()
const { zone, now } = useClock()
const wanted = computed(() => wantedOf(route.query))
const { data, dataUpdatedAt, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } =
  useFollowUps(wanted)

useKeys([
  { keys: '↑ ↓', does: 'Go along the list' },
  { keys: 'Enter', does: 'Open it and write' },
  { keys: 'Ctrl Enter', does: 'Send the answer' },
  { keys: 'f', does: 'Finish it' },
  { keys: 'p', does: 'Put it off' },
  { keys: 'n', does: 'Write a note' },
  { keys: 'g', does: 'Give it to somebody' },
  { keys: 't', does: 'Tag them' },
  { keys: 'z', does: 'Undo what was done last' },
  { keys: 'x', does: 'Choose it, to do one thing to several (with a click: Ctrl, Shift)' },
])

const narrow = (next: Wanted) => void router.push({ path: '/follow-up', query: queryOf(next) })
const first = computed(() => data.value?.pages[0])
const NAMES = {
  late: 'Late',
  'before-closing': 'Today, before closing',
  'next-opening': '',
  later: 'Later',
  'any-time': 'Whenever there is time',
}
const lanes = computed(() =>
  (Object.keys(NAMES) as (keyof typeof NAMES)[])
    .map((lane) => ({
      lane,
      name:
        lane === 'next-opening'
          ? ruler.value?.opens
            ? shortDate(ruler.value.opens, zone.value)
            : 'Next opening'
          : NAMES[lane],
      items: (data.value?.pages ?? []).flatMap(
        (page) => page.lanes.find((one) => one.lane === lane)?.items ?? [],
      ),
    }))
    .filter((lane) => lane.items.length),
)
const ruler = computed(() => first.value?.ruler)
/** The closed hours between now's stretch and the next opening, told where the list crosses them. */
const seam = computed(() => {
  const closes = ruler.value?.closes
  const opens = ruler.value?.opens
  if (!opens) return null
  const until = saidTime(opens, now.value, zone.value)
  return closes ? `Closed ${clockTime(closes, zone.value)} → ${until}` : `Closed now → ${until}`
})
const seamBefore = computed(
  () => lanes.value.find((one) => one.lane === 'next-opening' || one.lane === 'later')?.lane ?? null,
)
const foot = computed(() => [
  { name: 'Finished', items: (data.value?.pages ?? []).flatMap((page) => page.finished) },
  { name: 'Waiting for them', items: first.value?.waiting ?? [] },
  { name: 'Put off', items: first.value?.put_off ?? [] },
])
const all = computed<Item[]>(() => [
  ...lanes.value.flatMap((lane) => lane.items),
  ...foot.value.flatMap((lane) => lane.items),
])
const wide = useMediaQuery('(min-width: 768px)')
const chosen = computed(() => (route.params.id ? Number(route.params.id) : null))
/** On a wide screen there is always somebody on the right: the first of the list, until one is chosen. */
const selected = computed(() => chosen.value ?? (wide.value ? (all.value[0]?.id ?? null) : null))
watch(selected, (id) => (opened.value = id), { immediate: true })
onBeforeUnmount(() => {
  opened.value = null
  picked.value = new Set()
})
const kept = computed(() => {
  const counted = first.value?.promises_counted ?? 0
  return counted ? Math.floor((100 * (first.value?.promises_kept ?? 0)) / counted) : null
})

const place = ref<HTMLElement>()
const list = ref<HTMLElement>()
/** The row of the one that is open, else the first; on a phone, where the list is away, the person. */
const stands = () =>
  [
    list.value?.querySelector<HTMLElement>('[aria-current=true]'),
    list.value?.querySelector<HTMLElement>('[data-id]'),
    place.value?.querySelector<HTMLElement>('[data-person]'),
    place.value?.querySelector<HTMLElement>('#follow-up-title'),
  ].find((one) => one?.offsetParent)
keepFocus(place, stands)
/** Whoever wishes goes on to the next by themselves, once one is done with. */
const goesOn = useLocalStorage('intavo-goes-on', false)
const following = ref<number | null>(null)
watch(
  [all, selected],
  () => {
    const ours = lanes.value.flatMap((lane) => lane.items)
    const at = ours.findIndex((one) => one.id === selected.value)
    // One that has just left them is followed by whom it was followed by.
    if (at >= 0) following.value = (ours[at + 1] ?? ours[at - 1])?.id ?? null
  },
  { immediate: true },
)
async function goOn(id: number) {
  if (!goesOn.value || id !== selected.value) return
  const next = following.value
  await router.replace({ path: next === null ? '/follow-up' : `/follow-up/${next}`, query: route.query })
  await nextTick()
  stands()?.focus()
}
async function move(by: number) {
  const focused = Number((document.activeElement as HTMLElement | null)?.dataset.id) || selected.value
  const at = all.value.findIndex((item) => item.id === focused)
  const next = all.value[Math.min(all.value.length - 1, Math.max(0, at + by))]
  if (!next) return
  // At once: the next key is meant for it, however long going there takes.
  list.value?.querySelector<HTMLElement>(`[data-id="${next.id}"]`)?.focus()
  await router.replace({ path: `/follow-up/${next.id}`, query: route.query })
  await nextTick()
  list.value?.querySelector<HTMLElement>('[aria-current=true]')?.focus()
}
function inList(event: KeyboardEvent): boolean {
  const active = document.activeElement
  return !event.defaultPrevented && (active === document.body || !!list.value?.contains(active))
}
onKeyStroke(['ArrowDown', 'ArrowUp'], (event) => {
  if (!inList(event)) return
  event.preventDefault()
  void move(event.key === 'ArrowDown' ? 1 : -1)
})
const pane = ref<InstanceType<typeof PersonPane>>()
onKeyStroke('Enter', (event) => {
  if (!inList(event) || selected.value === null || document.activeElement === document.body) return
  event.preventDefault()
  // The one with the focus is meant, even where another is open.
  const focused = Number((document.activeElement as HTMLElement | null)?.dataset.id)
  if (focused && focused !== selected.value) {
    // What is typed at once is meant for the box, however long the person takes to come.
    const there = pane.value
    there?.wait()
    void router.replace({ path: `/follow-up/${focused}`, query: route.query }).then(async () => {
      await nextTick()
      if (!there) pane.value?.write()
    })
  } else pane.value?.write()
})
/** One key for each thing that is done to the one that is open. */
onKeyStroke(['f', 'p', 'n', 'g', 't', 'z'], (event) => {
  if (!inList(event) || event.ctrlKey || event.metaKey || event.altKey || event.repeat) return
  if (event.key === 'z') {
    const undo = [...document.querySelectorAll<HTMLElement>('[data-undo]')].at(-1)
    if (undo) event.preventDefault()
    return undo?.click()
  }
  if (selected.value !== null && pane.value?.press(event.key)) event.preventDefault()
})
onKeyStroke('Escape', (event) => {
  if (event.defaultPrevented || selected.value === null || document.querySelector('[role=dialog]')) return
  const back = selected.value
  if (picked.value.size) {
    picked.value = new Set()
    return
  }
  void router
    .push({ path: '/follow-up', query: route.query })
    .then(() => list.value?.querySelector<HTMLElement>(`[data-id="${back}"]`)?.focus())
})
const begun = computed(() => new Set(first.value?.begun ?? []))
let lastPicked: number | null = null
function pick(id: number, through = false) {
  const next = new Set(picked.value)
  const ids = all.value.map((one) => one.id)
  const from = lastPicked === null ? -1 : ids.indexOf(lastPicked)
  if (through && from >= 0) {
    const [a, b] = [from, ids.indexOf(id)].sort((one, other) => one - other) as [number, number]
    ids.slice(a, b + 1).forEach((one) => next.add(one))
  } else if (!next.delete(id)) next.add(id)
  lastPicked = id
  picked.value = next
}
function clicked(event: MouseEvent, id: number) {
  event.preventDefault()
  event.stopPropagation()
  pick(id, event.shiftKey)
}
onKeyStroke('x', (event) => {
  const on = (document.activeElement as HTMLElement | null)?.dataset.id
  if (!on || event.ctrlKey || event.metaKey || !inList(event)) return
  event.preventDefault()
  pick(Number(on))
})
watch(
  () => JSON.stringify(wanted.value),
  () => (picked.value = new Set()),
)

/**
 * What comes in while one reads never moves it: what is in view stays where it is, and what is above is told.
 */
const scroller = ref<HTMLElement>()
const above = ref(0)
let known: Set<number> | null = null
let anchor: { id: string; top: number } | null = null
watch(data, () => (anchor = held()), { flush: 'pre' })
watch(
  data,
  () => {
    const ids = new Set(all.value.map((one) => one.id))
    const fresh = known ? [...ids].filter((id) => !known?.has(id)) : []
    if (known && fresh.length && scroller.value && anchor) {
      const row = list.value?.querySelector(`[data-id="${anchor.id}"]`)
      const moved = row ? row.getBoundingClientRect().top - anchor.top : 0
      if (moved) scroller.value.scrollTop += moved
      const top = scroller.value.getBoundingClientRect().top
      above.value += fresh.filter(
        (id) => (list.value?.querySelector(`[data-id="${id}"]`)?.getBoundingClientRect().bottom ?? top) < top,
      ).length
    }
    known = ids
  },
  { flush: 'post' },
)
/** The row under the pointer or the caret, else the first in view. */
function held() {
  const rows = [...(list.value?.querySelectorAll<HTMLElement>('[data-id]') ?? [])]
  const top = scroller.value?.getBoundingClientRect().top ?? 0
  const row =
    rows.find((one) => one.matches(':hover') || one === document.activeElement) ??
    (scroller.value?.scrollTop ? rows.find((one) => one.getBoundingClientRect().bottom > top) : undefined)
  return row?.dataset.id ? { id: row.dataset.id, top: row.getBoundingClientRect().top } : null
}
function toTop() {
  scroller.value?.scrollTo({ top: 0 })
  above.value = 0
}
const { data: aside } = useQuarantine()
const { data: steps } = useFirstSteps()
</script>

<template>
  <div ref="place" class="flex h-full">
    <section
      ref="scroller"
      class="h-full w-[57%] overflow-auto p-5 max-md:w-full max-md:p-3"
      :class="{ 'max-md:hidden': selected !== null }"
      aria-labelledby="follow-up-title"
      @scroll.passive="scroller?.scrollTop || (above = 0)"
    >
      <div class="mb-3 flex flex-wrap items-baseline justify-between gap-x-4">
        <h1 id="follow-up-title" tabindex="-1">Follow-up</h1>
        <RouterLink v-if="aside?.length" to="/quarantine" class="btn-link ml-auto"
          >{{ aside.length }} set aside as spam</RouterLink
        >
        <RouterLink to="/not-on-the-list" class="btn-link" :class="{ 'ml-auto': !aside?.length }"
          >Not on the list</RouterLink
        >
        <DoneLately :zone="zone" :now="now" />
        <p v-if="first" class="text-ink-2">
          {{ first.open_count }} for us<template v-if="kept !== null">
            · promise kept {{ kept }} % this month</template
          >
        </p>
      </div>
      <WaitingList :now="now" :zone="zone" :as-of="dataUpdatedAt" />
      <FilterSentence :wanted="wanted" @change="narrow" />
      <SeveralBar
        v-if="picked.size"
        :ids="[...picked]"
        :wanted="wanted"
        :zone="zone"
        :now="now"
        @done="picked = new Set()"
      />
      <button
        v-if="above"
        type="button"
        class="btn btn-main sticky top-0 z-10 mx-auto mb-2 flex"
        @click="toTop"
      >
        {{ above }} new above
      </button>
      <ErrorBox :error="error" :again="() => refetch()" />
      <FirstSteps v-if="!Object.keys(wanted).length" />
      <div v-if="!first && !error" class="grid gap-2" aria-busy="true" aria-label="Loading the list">
        <div v-for="n in 6" :key="n" class="sheet h-16 opacity-60" />
      </div>
      <NothingHere
        v-else-if="first && !all.length && (first.sentence || !steps?.length)"
        :said="first.sentence"
        :wanted="wanted"
        @narrow="narrow"
      />
      <div v-else ref="list" class="relative pl-6.5">
        <span
          v-if="lanes.length"
          class="absolute top-1 bottom-0 left-[9px] w-[3px] bg-petrol-tint"
          aria-hidden="true"
        />
        <template v-for="lane in lanes" :key="lane.lane">
          <p
            v-if="seam && lane.lane === seamBefore"
            class="hatch relative -ml-6.5 my-3 rounded px-6.5 py-0.5 text-sm text-ink-2"
          >
            <span class="rounded bg-fog px-1.5">{{ seam }}</span>
          </p>
          <h2
            class="mt-3 mb-1.5 font-body! text-base!"
            :class="lane.lane === 'late' ? 'text-rust' : 'text-ink-2'"
          >
            {{ lane.name }}
          </h2>
          <ItemList
            :items="lane.items"
            :begun="begun"
            :selected="selected"
            :picked="picked"
            :zone="zone"
            :now="now"
            @pick="clicked"
          />
        </template>
        <button
          v-if="hasNextPage && lanes.length"
          type="button"
          class="btn mt-3"
          :disabled="isFetchingNextPage"
          @click="fetchNextPage()"
        >
          More
        </button>
        <template v-for="group in foot" :key="group.name">
          <template v-if="group.items.length">
            <h2 class="mt-5 mb-1.5 font-body! text-base! text-ink-2">{{ group.name }}</h2>
            <ItemList
              :items="group.items"
              :begun="begun"
              :selected="selected"
              :picked="picked"
              :zone="zone"
              :now="now"
              @pick="clicked"
            />
          </template>
        </template>
        <button
          v-if="hasNextPage && !lanes.length"
          type="button"
          class="btn mt-3"
          :disabled="isFetchingNextPage"
          @click="fetchNextPage()"
        >
          More
        </button>
      </div>
    </section>
    <PersonPane
      v-if="selected !== null"
      :id="selected"
      ref="pane"
      v-model:goes-on="goesOn"
      class="h-full flex-1 border-l border-line bg-sheet"
      :zone="zone"
      :now="now"
      @done="goOn"
      @left="stands()?.focus()"
    />
    <section
      v-else
      class="flex h-full flex-1 items-center justify-center border-l border-line bg-sheet p-8 text-ink-2 max-md:hidden"
    >
      Choose somebody from the list to see everything they did, and to answer.
    </section>
  </div>
</template>
