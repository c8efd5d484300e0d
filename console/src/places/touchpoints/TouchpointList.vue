<script setup lang="ts">
import { saidCount } from '@/lib/time'
import { vTyped } from '@/lib/typed'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDay } from '@/api/follow-ups'
import { freshVisitor, usePageMap, useWhyThere, type MadeUp } from '@/api/rehearsals'
import { useSites } from '@/api/sites'
import { fromLocal, toLocal } from '@/lib/local'
import { bringBack, copy, putInOrder, rename, throwAway, turn, useTouchpoints, type Summary } from '@/api/touchpoints'
import { dragRows } from '@/lib/sort'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import ReasonList from '../rehearse/ReasonList.vue'
import MapCell from './MapCell.vue'
import NewTouchpoint from './NewTouchpoint.vue'
import { PURPOSES, STANCES } from './words'

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
const seenBy = ref({ visits: 1, device: 'desktop' as MadeUp['device'], at: '' })
const visitor = computed<MadeUp | null>(() =>
  day.value ? { ...freshVisitor(seenBy.value.at || day.value.at), visits: seenBy.value.visits, device: seenBy.value.device } : null,
)
const { data: map, error: mapError } = usePageMap(site, visitor)
const mapped = computed(() => new Map(map.value?.rows.map((row) => [row.id, row])))
const rehearsal = (path = '/', touchpoint: number | null = null) => ({
  path: '/touchpoints/rehearse',
  query: { site: site.value, path, visitor: JSON.stringify(visitor.value), ...(touchpoint ? { touchpoint } : {}) },
})
const told = ref<{ id: number; at: number } | null>(null)
const cell = computed(() => {
  const at = told.value
  const row = at && rows.value?.find((one) => one.id === at.id)
  const found = at && mapped.value.get(at.id)?.cells[at.at]
  return row && found ? { row, found } : null
})
/** What else may show there, with the word or two of its cell. */
function beside(path: string): string {
  const at = told.value?.at ?? 0
  const found = (map.value?.rows ?? []).flatMap((row) => {
    const here = row.cells[at]
    const name = rows.value?.find((one) => one.id === row.id)?.name
    if (row.id === told.value?.id || !name || !here?.on.includes(path)) return []
    const words = { turn: 'in turn', asked: 'if opened' }[here.shows]
    return [words ? `${name} (${words})` : name]
  })
  return found.length ? `Also on this page: ${found.join(', ')}.` : 'Nothing else shows on this page.'
}
const { data: why, error: whyError } = useWhyThere(site, visitor, told)
const shared = computed(() => map.value?.columns.filter((one) => one.shared > 1) ?? [])
const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six']
const percent = (rate: number) => `${(100 * rate).toFixed(1)} %`
function setTime(event: Event) {
  const found = fromLocal((event.target as HTMLInputElement).value, zone.value)
  seenBy.value.at = found ?? ''
}
const making = computed(() => 'new' in route.query)
const search = ref('')
const naming = ref<number | null>(null)
const body = ref<HTMLElement>()
const STATES = {
  live: ['●', 'On', 'text-moss'],
  off: ['○', 'Turned off', 'text-ink-2'],
  draft: ['✎', 'Made, not on', 'text-brass'],
} as const
const state = (row: Summary): readonly [string, string, string] => {
  if (row.state !== 'live') return STATES[row.state as keyof typeof STATES]
  if (row.over) return ['◔', 'Ended', 'text-brass']
  return row.begins ? ['◔', row.begins.replace(/^f/, 'F'), 'text-brass'] : STATES.live
}
const called = (row: Summary) =>
  `${PURPOSES[row.purpose as keyof typeof PURPOSES]} · ${STANCES[row.stance as keyof typeof STANCES].toLowerCase()}`
const shown = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  const text = (row: Summary) => `${row.name} ${called(row)} ${row.slug} ${row.pages.join(' ')} ${state(row)[1]}`.toLowerCase()
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
    notices.say(`${row.name} is ${way}.`, { undo: () => turn(row.id, back).then(fresh) })
  })
const twice = (row: Summary) => tried(() => copy(row.id))
const remove = (row: Summary) =>
  tried(async () => {
    await throwAway(row.id)
    notices.say(`${row.name} is thrown away.`, { undo: () => bringBack(row.id, row.state === 'live').then(fresh) })
  })
function renamed(row: Summary, event: Event) {
  naming.value = null
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== row.name) void tried(() => rename(row.id, name))
}
async function startNaming(row: Summary) {
  naming.value = row.id
  await nextTick()
  body.value?.querySelector<HTMLInputElement>('[data-naming]')?.select()
}
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
  if (moves) said.value = `${row.name}: ${shown.value.findIndex((one) => one.id === row.id) + 1} of ${shown.value.length}`
}
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <div class="mb-4 flex flex-wrap items-center gap-3">
      <h1>Touchpoints</h1>
      <span v-if="rows?.length" class="mr-auto flex flex-wrap items-center gap-1.5" role="group" aria-label="As seen by">
        <span class="text-ink-2">seen</span>
        <select v-model="seenBy.visits" class="input w-auto!" aria-label="As seen by whom">
          <option :value="1">by a new visitor</option>
          <option :value="3">by one who knows it</option>
        </select>
        <select v-model="seenBy.device" class="input w-auto!" aria-label="On which device">
          <option value="desktop">on a desktop</option>
          <option value="tablet">on a tablet</option>
          <option value="phone">on a phone</option>
        </select>
        <input
          v-typed="visitor ? toLocal(visitor.at, zone) : ''"
          type="datetime-local"
          class="input w-auto!"
          aria-label="At which time"
          @change="setTime"
        />
        <select v-if="(sites?.length ?? 0) > 1" v-model="site" class="input w-auto!" aria-label="On which site">
          <option v-for="one in sites" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </span>
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
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">+ New touchpoint</button>
    </div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!rows && !error" class="sheet h-72 opacity-60" aria-busy="true" />
    <div v-if="rows && !rows.length" class="sheet p-8 text-center">
      <p class="mb-3">A touchpoint asks your visitors for something: their address, or their question.</p>
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">Make the first one</button>
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
            <th scope="col" class="border-b border-l border-line px-3 py-2.5 text-right text-sm font-semibold text-ink-2">Seen, 30 days</th>
            <th scope="col" class="border-b border-line px-3 py-2.5 text-right text-sm font-semibold text-ink-2">Conversion</th>
            <th scope="col" class="sticky right-0 border-b border-line bg-sheet px-3 py-2.5"><span class="sr-only">What to do</span></th>
          </tr>
        </thead>
        <tbody ref="body">
          <tr v-for="row in shown" :key="row.id" class="[&:last-child>td]:border-0">
            <td class="border-b border-line-2 px-3 py-2.5" :class="{ hatch: row.state !== 'live' }">
              <span class="inline-flex items-center gap-2 rounded pr-2" :class="{ 'bg-sheet': row.state !== 'live' }">
                <span v-if="!search" data-grip class="cursor-grab text-ink-3" aria-hidden="true">⠿</span>
                <span>
                  <input
                    v-if="naming === row.id"
                    v-typed="row.name"
                    data-naming
                    class="input"
                    :aria-label="`Name of ${row.name}`"
                    maxlength="120"
                    @change="renamed(row, $event)"
                    @blur="naming = null"
                    @keydown.esc="naming = null"
                  />
                  <RouterLink
                    v-else
                    :data-name="row.id"
                    :to="`/touchpoints/${row.id}`"
                    class="font-bold text-ink hover:underline"
                    @keydown="keys($event, row)"
                    >{{ row.name }}</RouterLink
                  >
                  <span class="block text-sm text-ink-2">{{ called(row) }}</span>
                </span>
              </span>
            </td>
            <td class="border-b border-line-2 px-3 py-2.5 font-semibold">
              <span :class="state(row)[2]"
                ><span aria-hidden="true">{{ state(row)[0] }}</span> {{ state(row)[1] }}</span
              >
              <span v-if="row.changed_since_live" class="block text-sm font-semibold text-brass">{{
                row.state === 'live' ? 'changed since it went live' : 'changed since it was on'
              }}</span>
            </td>
            <td
              v-for="(one, index) in mapped.get(row.id)?.cells ?? []"
              :key="index"
              class="border-b border-l border-line-2 px-1 py-2 text-center align-middle"
            >
              <MapCell
                :cell="one"
                :label="`${row.name} on ${map?.columns[index]?.label}`"
                :chosen="told?.id === row.id && told.at === index"
                @open="told = told?.id === row.id && told.at === index ? null : { id: row.id, at: index }"
              />
            </td>
            <td
              v-if="map && !mapped.has(row.id)"
              :colspan="map.columns.length"
              class="border-b border-l border-line-2 px-3 py-2 text-sm text-ink-2"
            >
              {{ row.sites.length ? `stands on ${row.sites.map((one) => one.name).join(', ')}` : 'on no site' }}
            </td>
            <td class="border-b border-l border-line-2 px-3 py-2.5 text-right tabular-nums">
              {{ map ? saidCount(mapped.get(row.id)?.seen ?? 0) : '…' }}
            </td>
            <td class="border-b border-line-2 px-3 py-2.5 text-right tabular-nums">
              {{ !map ? '…' : mapped.get(row.id)?.rate == null ? 'no rate' : percent(mapped.get(row.id)?.rate ?? 0) }}
            </td>
            <td class="sticky right-0 has-[[aria-expanded=true]]:z-20 border-b border-line-2 bg-sheet px-3 py-2.5">
              <span class="flex justify-end gap-2">
                <button
                  type="button"
                  class="btn"
                  :aria-label="`Turn ${row.state === 'live' ? 'off' : 'on'} ${row.name}`"
                  @click="flip(row)"
                >
                  {{ row.state === 'live' ? 'Turn off' : 'Turn on' }}
                </button>
                <Menu as="div" class="relative">
                  <MenuButton class="btn px-2!" :aria-label="`More for ${row.name}`">More</MenuButton>
                  <MenuItems class="pop absolute right-0 w-48">
                    <MenuItem
                      v-for="[words, work] in [
                        ['Rename', startNaming],
                        ['Make a copy', twice],
                        ['Throw away', remove],
                      ] as const"
                      :key="words"
                      v-slot="{ active }"
                    >
                      <button
                        type="button"
                        class="block w-full rounded px-2 py-1.5 text-left"
                        :class="{ 'bg-petrol-wash': active, 'text-rust': words === 'Throw away' }"
                        @click="work(row)"
                      >
                        {{ words }}
                      </button>
                    </MenuItem>
                    <MenuItem v-slot="{ active }"
                      ><RouterLink
                        :to="`/touchpoints/${row.id}/answers`"
                        class="block rounded px-2 py-1.5"
                        :class="{ 'bg-petrol-wash': active }"
                        >Its answers</RouterLink
                      ></MenuItem
                    >
                    <MenuItem v-if="row.state === 'live' && row.hosted[0]" v-slot="{ active }"
                      ><a
                        :href="row.hosted[0]"
                        target="_blank"
                        rel="noopener"
                        class="block rounded px-2 py-1.5"
                        :class="{ 'bg-petrol-wash': active }"
                        >Its own page</a
                      ></MenuItem
                    >
                    <MenuItem v-slot="{ active }"
                      ><RouterLink :to="rehearsal('/', row.id)" class="block rounded px-2 py-1.5" :class="{ 'bg-petrol-wash': active }"
                        >Rehearse a visit</RouterLink
                      ></MenuItem
                    >
                    <MenuItem v-slot="{ active }"
                      ><a
                        :href="`/api/touchpoints/${row.id}/file`"
                        download
                        class="block rounded px-2 py-1.5"
                        :class="{ 'bg-petrol-wash': active }"
                        >Save as a file</a
                      ></MenuItem
                    >
                  </MenuItems>
                </Menu>
              </span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="sr-only" aria-live="polite">{{ said }}</p>
    <p v-if="rows?.length && sites?.length && !map && !mapError" class="mt-2 text-ink-2" role="status">
      Working out what shows on which page …
    </p>
    <section
      v-if="cell && told"
      class="sheet sticky bottom-0 z-10 mt-3 max-h-[60vh] overflow-auto p-4 shadow-lg"
      aria-label="Why"
      aria-live="polite"
    >
      <div class="mb-2 flex flex-wrap items-center gap-3">
        <h2 class="mr-auto">{{ cell.row.name }} on {{ map?.columns[told.at]?.label }}</h2>
        <RouterLink :to="rehearsal(map?.columns[told.at]?.paths[0], cell.row.id)" class="btn">Rehearse from here</RouterLink>
        <button type="button" class="btn" @click="told = null">Close</button>
      </div>
      <ErrorBox v-if="whyError" :error="whyError" />
      <p v-else-if="!why" class="text-ink-2" role="status">Looking …</p>
      <details v-for="page in why" :key="page.path" :open="why?.length === 1" class="mb-1">
        <summary>
          <strong>{{ page.path }}</strong> — {{ page.shows ? 'it may show' : page.reasons.find((one) => !one.passed)?.words }}
        </summary>
        <ReasonList class="mt-1" :reasons="page.reasons" />
        <p class="mt-1 mb-2 text-ink-2">{{ beside(page.path) }}</p>
      </details>
    </section>
    <p v-if="rows?.length && !shown.length" class="mt-3 text-ink-2">No touchpoint is called that, or stands there.</p>
    <p v-else-if="rows && rows.length > 1" class="mt-2 text-sm text-ink-2">
      <template v-for="one in shared" :key="one.label"
        ><strong>{{ one.label }}</strong> carries {{ NUMBERS[one.shared] ?? one.shared }} that would come at once: they take turns.
      </template>
      The upper one comes first; drag them, or use Alt and the arrows. Click any cell for the reason.
    </p>
    <NewTouchpoint :open="making" @close="router.push('/touchpoints')" />
  </div>
</template>
