<script setup lang="ts">
import { onKeyStroke, useMediaQuery } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useFollowUps, type Item } from '@/api/follow-ups'
import { useQuarantine } from '@/api/quarantine'
import { useClock } from '@/lib/clock'
import { useKeys } from '@/lib/keys'
import { clockTime, saidTime, shortDate } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useFirstSteps } from '@/api/first-steps'
import FirstSteps from './FirstSteps.vue'
import FollowUpItem from './FollowUpItem.vue'
import PersonPane from './PersonPane.vue'

const route = useRoute()
const router = useRouter()
const { zone, now } = useClock()
const { data, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useFollowUps()

useKeys([
  { keys: '↑ ↓', does: 'Go along the list' },
  { keys: 'Enter', does: 'Open it and write' },
  { keys: 'Ctrl Enter', does: 'Send the answer' },
])

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
      name: lane === 'next-opening' ? (ruler.value?.opens ? shortDate(ruler.value.opens, zone.value) : 'Next opening') : NAMES[lane],
      items: (data.value?.pages ?? []).flatMap((page) => page.lanes.find((one) => one.lane === lane)?.items ?? []),
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
const seamBefore = computed(() => lanes.value.find((one) => one.lane === 'next-opening' || one.lane === 'later')?.lane ?? null)
const foot = computed(() => [
  { name: 'Waiting for them', items: first.value?.waiting ?? [] },
  { name: 'Put off', items: first.value?.put_off ?? [] },
])
const all = computed<Item[]>(() => [...lanes.value.flatMap((lane) => lane.items), ...foot.value.flatMap((lane) => lane.items)])
const wide = useMediaQuery('(min-width: 768px)')
const chosen = computed(() => (route.params.id ? Number(route.params.id) : null))
/** On a wide screen there is always somebody on the right: the first of the list, until one is chosen. */
const selected = computed(() => chosen.value ?? (wide.value ? (all.value[0]?.id ?? null) : null))
const kept = computed(() => {
  const counted = first.value?.promises_counted ?? 0
  return counted ? Math.round((100 * (first.value?.promises_kept ?? 0)) / counted) : null
})

const list = ref<HTMLElement>()
async function move(by: number) {
  const at = all.value.findIndex((item) => item.id === selected.value)
  const next = all.value[Math.min(all.value.length - 1, Math.max(0, at + by))]
  if (!next) return
  await router.replace(`/follow-up/${next.id}`)
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
  pane.value?.write()
})
onKeyStroke('Escape', (event) => {
  if (event.defaultPrevented || selected.value === null || document.querySelector('[role=dialog]')) return
  const back = selected.value
  void router.push('/follow-up').then(() => list.value?.querySelector<HTMLElement>(`[data-id="${back}"]`)?.focus())
})
const { data: aside } = useQuarantine()
const { data: steps } = useFirstSteps()
</script>

<template>
  <div class="flex h-full">
    <section
      class="h-full w-[57%] overflow-auto p-5 max-md:w-full max-md:p-3"
      :class="{ 'max-md:hidden': selected !== null }"
      aria-labelledby="follow-up-title"
    >
      <div class="mb-3 flex flex-wrap items-baseline justify-between gap-x-4">
        <h1 id="follow-up-title">Follow-up</h1>
        <RouterLink v-if="aside?.length" to="/quarantine" class="btn-link ml-auto">{{ aside.length }} set aside as spam</RouterLink>
        <p v-if="first" class="text-ink-2">
          {{ first.open_count }} for us<template v-if="kept !== null"> · promise kept {{ kept }} % this month</template>
        </p>
      </div>
      <ErrorBox :error="error" :again="() => refetch()" />
      <FirstSteps />
      <div v-if="!first && !error" class="grid gap-2" aria-busy="true" aria-label="Loading the list">
        <div v-for="n in 6" :key="n" class="sheet h-16 opacity-60" />
      </div>
      <div v-else-if="first && !all.length && !steps?.length" class="sheet p-8 text-center">
        <p class="mb-3">Nobody is waiting. Sign-ups and questions from your site come here by themselves.</p>
        <RouterLink to="/touchpoints" class="btn">See your touchpoints</RouterLink>
      </div>
      <div v-else ref="list" class="relative pl-6.5">
        <span v-if="lanes.length" class="absolute top-1 bottom-0 left-[9px] w-[3px] bg-petrol-tint" aria-hidden="true" />
        <template v-for="lane in lanes" :key="lane.lane">
          <p v-if="seam && lane.lane === seamBefore" class="hatch relative -ml-6.5 my-3 rounded px-6.5 py-0.5 text-sm text-ink-2">
            <span class="rounded bg-fog px-1.5">{{ seam }}</span>
          </p>
          <h2 class="mt-3 mb-1.5 font-body! text-base!" :class="lane.lane === 'late' ? 'text-rust' : 'text-ink-2'">{{ lane.name }}</h2>
          <ul class="grid grid-cols-1 gap-1.5">
            <FollowUpItem v-for="item in lane.items" :key="item.id" :item="item" :selected="item.id === selected" :zone="zone" :now="now" />
          </ul>
        </template>
        <button v-if="hasNextPage" type="button" class="btn mt-3" :disabled="isFetchingNextPage" @click="fetchNextPage()">More</button>
        <template v-for="group in foot" :key="group.name">
          <template v-if="group.items.length">
            <h2 class="mt-5 mb-1.5 font-body! text-base! text-ink-2">{{ group.name }}</h2>
            <ul class="grid grid-cols-1 gap-1.5">
              <FollowUpItem
                v-for="item in group.items"
                :key="item.id"
                :item="item"
                :selected="item.id === selected"
                :zone="zone"
                :now="now"
              />
            </ul>
          </template>
        </template>
      </div>
    </section>
    <PersonPane
      v-if="selected !== null"
      :id="selected"
      ref="pane"
      class="h-full flex-1 border-l border-line bg-sheet"
      :zone="zone"
      :now="now"
    />
    <section v-else class="flex h-full flex-1 items-center justify-center border-l border-line bg-sheet p-8 text-ink-2 max-md:hidden">
      Choose somebody from the list to see everything they did, and to answer.
    </section>
  </div>
</template>
