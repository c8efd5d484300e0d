<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import {
  dropGroup,
  keepGroup,
  readFilter,
  useAgain,
  useGroups,
  usePeople,
  useSuggested,
  written,
  type Filter,
} from '@/api/people'
import { useClock } from '@/lib/clock'
import { saidCount, saidTime, shortDate } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import KeptRow from '@/parts/KeptRow.vue'
import AddPerson from './AddPerson.vue'
import JoinDialog from './JoinDialog.vue'
import PeopleSentence from './PeopleSentence.vue'
import TagsDialog from './TagsDialog.vue'
import MenuRow from '@/parts/MenuRow.vue'

/**
 * Everybody: sought by a sentence, kept as groups, joined, taken out. What is sought stands in the address.
 */
const route = useRoute()
const router = useRouter()
const again = useAgain()
const { zone, now } = useClock()
const wanted = computed(() => readFilter(route.query.wanted))
const text = ref(typeof route.query.q === 'string' ? route.query.q : '')
const q = computed(() => (typeof route.query.q === 'string' ? route.query.q : ''))
watch(q, (said) => (text.value = said))
const asked = computed(() => written(wanted.value))
const { data: pages, error, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = usePeople(asked, q)
const people = computed(() => pages.value?.pages.flatMap((one) => one.people) ?? [])
const count = computed(() => pages.value?.pages[0]?.count)
const { data: groups } = useGroups()
const { data: pairs } = useSuggested()
const joining = ref<{ kept: number; gone: number } | null>(null)
const adding = ref(false)
const tagging = ref(false)
const comparing = ref(false)

function show(filter: Filter, words = q.value) {
  void router.replace({
    path: '/people',
    query: { ...(written(filter) ? { wanted: written(filter) } : {}), ...(words ? { q: words } : {}) },
  })
}
const search = useDebounceFn(() => show(wanted.value, text.value.trim()), 300)

const COLUMNS = {
  email: 'Email',
  phone: 'Phone',
  tags: 'Tags',
  agreed: 'May be written to',
  last: 'Last heard of',
  added: 'On the list since',
}
const shown = useLocalStorage<(keyof typeof COLUMNS)[]>('people-columns', [
  'email',
  'phone',
  'tags',
  'agreed',
  'last',
])
const toggle = (key: keyof typeof COLUMNS) =>
  (shown.value = shown.value.includes(key) ? shown.value.filter((one) => one !== key) : [...shown.value, key])
const columns = computed(() =>
  (Object.keys(COLUMNS) as (keyof typeof COLUMNS)[]).filter((key) => shown.value.includes(key)),
)

const current = computed(() =>
  groups.value?.find((one) => !!asked.value && one.sentence === pages.value?.pages[0]?.sentence),
)
async function keep(name: string, forAll: boolean) {
  await keepGroup({ name, wanted: wanted.value, for_all: forAll })
  await again()
}
async function forget(id: number) {
  await dropGroup(id)
  await again()
}
const kept = computed(() =>
  (groups.value ?? []).map((one) => ({
    id: one.id,
    name: one.name,
    title: `${one.sentence} · ${one.for_all ? 'kept for all' : 'kept for you'}`,
  })),
)
function go(id: number | null) {
  const group = groups.value?.find((one) => one.id === id)
  show(group ? group.wanted : { conditions: [], any: false })
}
const out = (form: string) =>
  `/api/people-export?${new URLSearchParams({ form, wanted: asked.value, q: q.value })}`
const LAST: Record<string, string> = {
  'signed up': 'signed up',
  asked: 'asked',
  message: 'wrote',
  'asked for a call': 'asked for a call',
  'gave a score': 'gave a score',
  replied: 'answered',
  'wrote by mail': 'wrote by mail',
  imported: 'brought in',
}
</script>

<template>
  <div class="mx-auto w-full max-w-[90rem] p-5 max-md:p-3">
    <div class="mb-3 flex flex-wrap items-center gap-2">
      <h1 class="mr-2">People</h1>
      <span v-if="count !== undefined" class="text-ink-2">{{ saidCount(count) }} shown</span>
      <input
        v-model="text"
        class="input ml-auto w-52! max-md:ml-0 max-md:w-full!"
        type="search"
        aria-label="Find by name or address"
        placeholder="Name or address"
        maxlength="100"
        @input="search"
      />
      <Menu as="div" class="relative">
        <MenuButton class="btn">Take out <span aria-hidden="true">▾</span></MenuButton>
        <MenuItems class="pop absolute right-0 mt-1 w-64 max-md:left-0">
          <MenuRow
            v-for="[form, words] in [
              ['csv', 'A table, as CSV'],
              ['vcf', 'Cards for an address book'],
              ['jsonl', 'Data, as JSON Lines'],
            ] as const"
            :key="form"
            :href="out(form)"
            download
            >{{ words }}</MenuRow
          >
          <p class="px-2 pt-1 text-sm text-ink-2">Everybody who is shown. The log says who took them out.</p>
        </MenuItems>
      </Menu>
      <RouterLink to="/people/bring-in" class="btn">Bring in …</RouterLink>
      <button type="button" class="btn" @click="tagging = true">Tags</button>
      <button type="button" class="btn btn-main" @click="adding = true">+ Person</button>
    </div>

    <PeopleSentence :wanted="wanted" class="mb-2" @change="show($event)" />
    <KeptRow
      class="mb-3"
      :kept="kept"
      :current="current?.id ?? null"
      :narrows="wanted.conditions.length > 0"
      what="as a group"
      all="Show everybody"
      :keep="keep"
      :drop="forget"
      @go="go"
    >
      <!-- It comes after the list, which may not move for it. -->
      <button
        v-if="pairs?.length"
        type="button"
        class="btn-link ml-auto font-semibold text-brass!"
        :aria-expanded="comparing"
        aria-controls="perhaps-one"
        @click="comparing = !comparing"
      >
        ▲ {{ pairs.length === 1 ? 'Two cards are' : `${saidCount(pairs.length)} pairs of cards are` }} perhaps
        of one person
      </button>
      <Menu as="div" class="relative" :class="{ 'ml-auto': !pairs?.length }">
        <MenuButton class="btn-link">Columns</MenuButton>
        <MenuItems class="pop absolute right-0 mt-1 w-52 max-md:left-0">
          <MenuItem v-for="(words, key) in COLUMNS" :key="key" v-slot="{ active }">
            <button
              type="button"
              class="w-full rounded px-2 py-1 text-left"
              :class="{ 'bg-petrol-wash': active }"
              role="menuitemcheckbox"
              :aria-checked="shown.includes(key)"
              @click.prevent="toggle(key)"
            >
              {{ shown.includes(key) ? '✓' : ' ' }} {{ words }}
            </button>
          </MenuItem>
        </MenuItems>
      </Menu>
    </KeptRow>

    <section
      v-if="pairs?.length && comparing"
      id="perhaps-one"
      class="sheet mb-3 p-3"
      aria-label="Perhaps of one person"
    >
      <ul class="grid gap-2">
        <li
          v-for="pair in pairs"
          :key="`${pair.one.id}-${pair.other.id}`"
          class="flex flex-wrap items-center gap-x-2 gap-y-1"
        >
          <span class="min-w-0 flex-1">
            <RouterLink class="btn-link" :to="`/people/${pair.one.id}`" dir="auto">{{
              pair.one.name || pair.one.addresses[0]
            }}</RouterLink>
            and
            <RouterLink class="btn-link" :to="`/people/${pair.other.id}`" dir="auto">{{
              pair.other.name || pair.other.addresses[0]
            }}</RouterLink>: {{ pair.why }}
          </span>
          <button type="button" class="btn" @click="joining = { kept: pair.one.id, gone: pair.other.id }">
            Look and join …
          </button>
        </li>
      </ul>
    </section>

    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!pages && !error" class="sheet h-96 opacity-60" aria-busy="true" />
    <div v-if="pages" class="sheet overflow-x-auto">
      <table class="w-full border-collapse">
        <thead>
          <tr class="text-left text-sm text-ink-2">
            <th class="px-3 py-2 font-semibold">Name</th>
            <th v-for="key in columns" :key="key" class="px-3 py-2 font-semibold max-md:hidden">
              {{ COLUMNS[key] }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in people" :key="one.id" class="border-t border-line-2 hover:bg-petrol-wash">
            <td class="px-3 py-2">
              <RouterLink
                :to="`/people/${one.id}`"
                class="font-semibold break-all text-ink hover:underline"
                dir="auto"
                >{{ one.name || one.email || one.phone || `Somebody no. ${one.id}` }}</RouterLink
              >
              <span class="block text-sm text-ink-2 md:hidden"
                >{{ one.name ? one.email || one.phone : '' }}
                {{
                  one.last_at
                    ? `${LAST[one.last_kind] ?? one.last_kind} ${saidTime(one.last_at, now, zone)}`
                    : ''
                }}</span
              >
            </td>
            <td v-for="key in columns" :key="key" class="px-3 py-2 max-md:hidden">
              <span v-if="key === 'email'" class="break-all">{{ one.email }}</span>
              <span v-else-if="key === 'phone'">{{ one.phone }}</span>
              <span v-else-if="key === 'tags'" class="flex flex-wrap gap-1"
                ><span v-for="each in one.tags" :key="each" class="chip">{{ each }}</span></span
              >
              <span v-else-if="key === 'agreed'" :class="one.agreed ? 'text-moss' : 'text-ink-2'">{{
                one.agreed ? '✓ agreed' : 'no'
              }}</span>
              <span v-else-if="key === 'last'" class="text-ink-2">{{
                one.last_at
                  ? `${LAST[one.last_kind] ?? one.last_kind} ${saidTime(one.last_at, now, zone)}`
                  : 'never'
              }}</span>
              <span v-else class="text-ink-2">{{ shortDate(one.added_at, zone) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="!people.length" class="p-5 text-ink-2">
        {{
          asked || q
            ? 'Nobody is like that.'
            : 'Nobody yet: whoever signs up or asks stands here, and whoever you bring in or add yourself.'
        }}
      </p>
    </div>
    <button
      v-if="hasNextPage"
      type="button"
      class="btn mt-3"
      :disabled="isFetchingNextPage"
      @click="fetchNextPage()"
    >
      Show more
    </button>

    <AddPerson v-if="adding" @close="adding = false" />
    <TagsDialog v-if="tagging" @close="tagging = false" />
    <JoinDialog v-if="joining" :kept="joining.kept" :gone="joining.gone" @close="joining = null" />
  </div>
</template>
