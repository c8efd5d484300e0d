<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDay } from '@/api/follow-ups'
import { freshVisitor, usePageMap, type MadeUp } from '@/api/rehearsals'
import { useSites } from '@/api/sites'
import {
  bringBack,
  copy,
  putInOrder,
  rename,
  throwAway,
  turn,
  useTouchpoints,
  type Summary,
} from '@/api/touchpoints'
import { dragRows } from '@/lib/sort'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import NewTouchpoint from './NewTouchpoint.vue'
import { calledWhat, stateOf } from './rows'
import SeenBy, { type Seen } from './SeenBy.vue'
import WhyHere from './WhyHere.vue'
import TouchpointRow from './TouchpointRow.vue'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const notices = useNotices()
const { data: rows, error, refetch } = useTouchpoints()
const { data: day } = useDay()
const { data: sites } = useSites()
const site = ref(0)
watch(sites, (found) => (site.value ||= found?.[0]?.id ?? 0), { immediate: true })
const zone = computed(() => day.value?.timezone ?? 'UTC')
const seenBy = ref<Seen>({ visits: 1, device: 'desktop', at: '' })
const visitor = computed<MadeUp | null>(() =>
  day.value
    ? {
        ...freshVisitor(seenBy.value.at || day.value.at),
        visits: seenBy.value.visits,
        device: seenBy.value.device,
      }
    : null,
)
const { data: map, error: mapError } = usePageMap(site, visitor)
const mapped = computed(() => new Map(map.value?.rows.map((row) => [row.id, row])))
const rehearsal = (path = '/', touchpoint: number | null = null) => ({
  path: '/touchpoints/rehearse',
  query: {
    site: site.value,
    path,
    visitor: JSON.stringify(visitor.value),
    ...(touchpoint ? { touchpoint } : {}),
  },
})
/** The cell that is open, by touchpoint and column. */
const cell = ref<{ id: number; at: number } | null>(null)
const isOpen = (id: number, at: number) => cell.value?.id === id && cell.value.at === at
const opened = computed(() => {
  const at = cell.value
  return at && mapped.value.get(at.id)?.cells[at.at] ? rows.value?.find((row) => row.id === at.id) : undefined
})
const shared = computed(() => map.value?.columns.filter((one) => one.shared > 1) ?? [])
const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six']
const making = computed(() => 'new' in route.query)
const search = ref('')
const body = ref<HTMLElement>()
const shown = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  const text = (row: Summary) =>
    `${row.name} ${calledWhat(row)} ${row.slug} ${row.pages.join(' ')} ${stateOf(row)[1]}`.toLowerCase()
  return (rows.value ?? []).filter((row) => words.every((word) => text(row).includes(word)))
})
const fresh = () => queries.invalidateQueries()

async function tried(work: () => Promise<unknown>) {
  try {
    await work()
    await fresh()
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
const flip = (row: Summary) =>
  tried(async () => {
    const way = row.state === 'live' ? 'off' : 'on'
    await turn(row.id, way)
    const back = way === 'on' ? 'off' : 'on'
    notices.say(`${row.name} is ${way}.`, { undo: () => turn(row.id, back) })
  })
const twice = (row: Summary) => tried(() => copy(row.id))
const remove = (row: Summary) =>
  tried(async () => {
    await throwAway(row.id)
    notices.say(`${row.name} is thrown away.`, {
      undo: () => bringBack(row.id, row.state === 'live'),
    })
  })
function move(from: number, to: number) {
  const ids = (rows.value ?? []).map((row) => row.id)
  const [id] = ids.splice(from, 1)
  if (id === undefined || to < 0 || to > ids.length) return
  ids.splice(to, 0, id)
  // At once on the screen, so that the next press of a key finds the row where it stands now.
  const order = new Map(ids.map((one, at) => [one, at]))
  queries.setQueryData<Summary[]>(['touchpoints'], (known) =>
    [...(known ?? [])].sort((a, b) => (order.get(a.id) ?? 0) - (order.get(b.id) ?? 0)),
  )
  void tried(() => putInOrder(ids))
}
/** Where the row that was moved stands now. */
const said = ref('')
let stopDragging: () => void = () => undefined
watch(
  [body, search],
  () => {
    stopDragging()
    stopDragging = body.value && !search.value ? dragRows(body.value, move) : () => undefined
  },
  { flush: 'post' },
)
onBeforeUnmount(() => stopDragging())
async function keys(event: KeyboardEvent, row: Summary) {
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (way === undefined) return
  event.preventDefault()
  const at = shown.value.findIndex((one) => one.id === row.id)
  const moves = event.altKey && !search.value
  if (moves) move(at, at + way)
  const to = moves ? row.id : shown.value[at + way]?.id
  await nextTick()
  body.value?.querySelector<HTMLElement>(`[data-name="${to}"]`)?.focus()
  if (moves)
    said.value = `${row.name}: ${shown.value.findIndex((one) => one.id === row.id) + 1} of ${shown.value.length}`
}
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <div class="mb-4 flex flex-wrap items-center gap-3">
      <h1>Touchpoints</h1>
      <SeenBy
        v-if="rows?.length"
        v-model="seenBy"
        v-model:site="site"
        class="mr-auto"
        :at="visitor?.at ?? ''"
        :zone="zone"
      />
      <span v-else class="mr-auto" />
      <input
        v-if="rows?.length"
        v-model="search"
        type="search"
        class="input w-36!"
        placeholder="Find one"
        aria-label="Search touchpoints"
      />
      <RouterLink v-if="rows?.length" :to="rehearsal()" class="btn">Rehearse a visit</RouterLink>
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">
        + New touchpoint
      </button>
    </div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!rows && !error" class="sheet h-72 opacity-60" aria-busy="true" />
    <div v-if="rows && !rows.length" class="sheet p-8 text-center">
      <p class="mb-3">A touchpoint asks your visitors for something: their address, or their question.</p>
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">
        Make the first one
      </button>
    </div>
    <div v-if="rows?.length" class="overflow-x-auto">
      <table class="sheet w-full border-separate border-spacing-0">
        <thead>
          <tr class="text-left">
            <th scope="col" class="border-b border-line px-3 py-2.5 font-semibold text-ink-2">Touchpoint</th>
            <th scope="col" class="border-b border-line px-3 py-2.5 font-semibold text-ink-2">State</th>
            <th
              v-for="column in map?.columns"
              :key="column.label"
              scope="col"
              class="border-b border-l border-line px-1 py-2.5 text-center text-sm font-semibold text-ink-2"
              :title="column.paths.join(', ')"
            >
              {{ column.label }}
            </th>
            <th
              scope="col"
              class="border-b border-l border-line px-3 py-2.5 text-right text-sm font-semibold text-ink-2"
            >
              Seen, 30 days
            </th>
            <th
              scope="col"
              class="border-b border-line px-3 py-2.5 text-right text-sm font-semibold text-ink-2"
            >
              Conversion
            </th>
            <th scope="col" class="sticky right-0 border-b border-line bg-sheet px-3 py-2.5">
              <span class="sr-only">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody ref="body">
          <TouchpointRow
            v-for="row in shown"
            :key="row.id"
            :row="row"
            :columns="map?.columns ?? null"
            :mapped="mapped.get(row.id)"
            :grip="!search"
            :open-at="cell?.id === row.id ? cell.at : null"
            :rehearsal="rehearsal('/', row.id)"
            @keys="keys($event, row)"
            @open="cell = isOpen(row.id, $event) ? null : { id: row.id, at: $event }"
            @flip="flip(row)"
            @rename="(name) => tried(() => rename(row.id, name))"
            @copy="twice(row)"
            @remove="remove(row)"
          />
        </tbody>
      </table>
    </div>
    <p class="sr-only" aria-live="polite">{{ said }}</p>
    <p v-if="rows?.length && sites?.length && !map && !mapError" class="mt-2 text-ink-2" role="status">
      Working out what shows on which page …
    </p>
    <WhyHere
      v-if="opened && cell && map"
      :row="opened"
      :rows="rows ?? []"
      :at="cell.at"
      :map="map"
      :site="site"
      :visitor="visitor"
      :rehearsal="rehearsal(map.columns[cell.at]?.paths[0], opened.id)"
      @close="cell = null"
    />
    <p v-if="rows?.length && !shown.length" class="mt-3 text-ink-2">
      No touchpoint is called that, or stands there.
    </p>
    <p v-else-if="rows && rows.length > 1" class="mt-2 text-sm text-ink-2">
      <template v-for="one in shared" :key="one.label"
        ><strong>{{ one.label }}</strong> carries {{ NUMBERS[one.shared] ?? one.shared }} that would come at
        once: they take turns.
      </template>
      The upper one comes first; drag them, or use Alt and the arrows. Click any cell for the reason.
    </p>
    <NewTouchpoint :open="making" @close="router.push('/touchpoints')" />
  </div>
</template>
