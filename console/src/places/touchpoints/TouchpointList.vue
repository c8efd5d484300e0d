<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bringBack, copy, putInOrder, rename, throwAway, turn, useTouchpoints, type Summary } from '@/api/touchpoints'
import { dragRows } from '@/lib/sort'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import NewTouchpoint from './NewTouchpoint.vue'
import { PURPOSES, STANCES } from './words'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const notices = useNotices()
const { data: rows, error, refetch } = useTouchpoints()
const making = computed(() => 'new' in route.query)
const search = ref('')
const naming = ref<number | null>(null)
const body = ref<HTMLElement>()
const STATES = {
  live: ['●', 'On', 'text-moss'],
  off: ['○', 'Turned off', 'text-ink-2'],
  draft: ['✎', 'Made, not on', 'text-brass'],
} as const
const state = (row: Summary) => STATES[row.state as keyof typeof STATES]
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
  void tried(() => putInOrder(ids))
}
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
function keys(event: KeyboardEvent, at: number) {
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (way === undefined) return
  event.preventDefault()
  if (event.altKey && !search.value) move(at, at + way)
  body.value?.querySelectorAll<HTMLElement>('[data-name]')[at + way]?.focus()
}
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <div class="mb-4 flex items-center gap-3">
      <h1 class="mr-auto">Touchpoints</h1>
      <input
        v-if="rows?.length"
        v-model="search"
        type="search"
        class="input w-64!"
        placeholder="Search by name, kind or page"
        aria-label="Search touchpoints"
      />
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">+ New touchpoint</button>
    </div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!rows && !error" class="sheet h-72 opacity-60" aria-busy="true" />
    <div v-if="rows && !rows.length" class="sheet p-8 text-center">
      <p class="mb-3">A touchpoint asks your visitors for something: their address, or their question.</p>
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">Make the first one</button>
    </div>
    <table v-if="rows?.length" class="sheet w-full border-separate border-spacing-0">
      <thead>
        <tr class="text-left">
          <th
            v-for="head in ['Touchpoint', 'State', 'Where', 'Its own page', '']"
            :key="head"
            scope="col"
            class="border-b border-line px-4 py-2.5 font-semibold text-ink-2"
          >
            {{ head }}<span v-if="!head" class="sr-only">What to do</span>
          </th>
        </tr>
      </thead>
      <tbody ref="body">
        <tr v-for="(row, at) in shown" :key="row.id" class="[&:last-child>td]:border-0">
          <td class="border-b border-line-2 px-4 py-2.5" :class="{ hatch: row.state !== 'live' }">
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
                  data-name
                  :to="`/touchpoints/${row.id}`"
                  class="font-bold text-ink hover:underline"
                  @keydown="keys($event, at)"
                  >{{ row.name }}</RouterLink
                >
                <span class="block text-sm text-ink-2">{{ called(row) }}</span>
              </span>
            </span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5 font-semibold">
            <span :class="state(row)[2]"
              ><span aria-hidden="true">{{ state(row)[0] }}</span> {{ state(row)[1] }}</span
            >
            <span v-if="row.changed_since_live" class="block text-sm font-semibold text-brass">changed since it went live</span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5 text-ink-2">
            <template v-if="row.pages.length">{{ row.pages.join(', ') }}</template><template v-else>every page</template>
            <span class="block text-sm">{{ row.sites.map((site) => site.name).join(', ') || 'on no site' }}</span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5">
            <a v-if="row.state === 'live' && row.hosted[0]" :href="row.hosted[0]" target="_blank" rel="noopener" class="btn-link"
              >/t/{{ row.sites[0]?.slug }}/{{ row.slug }}</a
            >
            <span v-else class="text-ink-2">only while it is on</span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5">
            <span class="flex justify-end gap-2">
              <button type="button" class="btn" :aria-label="`Turn ${row.state === 'live' ? 'off' : 'on'} ${row.name}`" @click="flip(row)">
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
    <p v-if="rows?.length && !shown.length" class="mt-3 text-ink-2">No touchpoint is called that, or stands there.</p>
    <p v-else-if="rows && rows.length > 1" class="mt-2 text-sm text-ink-2">
      Where several want to come at once, the upper one comes first. Drag them, or use Alt and the arrows.
    </p>
    <NewTouchpoint :open="making" @close="router.push('/touchpoints')" />
  </div>
</template>
