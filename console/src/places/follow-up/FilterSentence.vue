<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useKeptFilters, useTags, useWaysIn, type Wanted } from '@/api/follow-ups'
import { useMembers } from '@/api/me'
import { useKnownSites } from '@/api/sites'
import { useTouchpoints } from '@/api/touchpoints'
import KeptRow from '@/parts/KeptRow.vue'
import { ALL_OF_A_KIND, ASKED_FOR } from '@/lib/names'
import { queryOf } from './wanted'
import WhenBox from '@/parts/WhenBox.vue'

/** The filter of the list as a sentence; each piece is chosen where it stands, and stands in the address. */
const props = defineProps<{ wanted: Wanted }>()
const emit = defineEmits<{ change: [wanted: Wanted] }>()
const { data: touchpoints } = useTouchpoints()
const { data: members } = useMembers()
const { data: tags } = useTags()
const { data: ways } = useWaysIn()
const { data: sites } = useKnownSites()
const { filters, keep, drop } = useKeptFilters()
const open = ref(false)
const more = computed(
  () => open.value || ['tag', 'since', 'via', 'site', 'page', 'untouched'].some((one) => one in props.wanted),
)
const untouched = computed(() =>
  [...new Set([1, 2, 3, 5, 10, props.wanted.untouched ?? 1])].sort((a, b) => a - b),
)
const narrows = computed(() => Object.keys(props.wanted).length > 0)

function set(piece: Partial<Record<keyof Wanted, string | number | undefined>>) {
  emit(
    'change',
    Object.fromEntries(
      Object.entries({ ...props.wanted, ...piece }).filter(([, one]) => one !== undefined && one !== ''),
    ) as Wanted,
  )
}
const chosen = (event: Event) => (event.target as HTMLSelectElement).value
const numbered = (event: Event) => (chosen(event) === '' ? undefined : Number(chosen(event)))

const text = ref(props.wanted.q ?? '')
watch(
  () => props.wanted.q,
  (now) => (text.value = now ?? ''),
)
const search = useDebounceFn(
  () => text.value.trim() !== (props.wanted.q ?? '') && set({ q: text.value.trim() }),
  300,
)
const box = ref<HTMLInputElement>()

const same = (one: Wanted) =>
  JSON.stringify(queryOf({ ...one })) === JSON.stringify(queryOf({ ...props.wanted }))
const current = computed(() => filters.value?.find((one) => same(one.wanted)))
const kept = computed(() =>
  (filters.value ?? []).map((one) => ({
    id: one.id,
    name: one.name,
    title: one.for_all ? 'kept for all' : 'kept for you',
  })),
)
</script>

<template>
  <div class="mb-3 grid gap-2">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1.5">
      <p
        class="flex flex-1 flex-wrap items-center gap-1 text-ink-2"
        role="group"
        aria-label="What the list shows"
      >
        <select
          class="piece"
          aria-label="What"
          :value="wanted.kind ?? ''"
          @change="set({ kind: chosen($event) })"
        >
          <option v-for="(words, key) in ALL_OF_A_KIND" :key="key" :value="key">{{ words }}</option>
        </select>
        <select
          class="piece"
          aria-label="In which state"
          :value="wanted.state ?? ''"
          @change="set({ state: chosen($event) })"
        >
          <option v-for="(words, key) in ASKED_FOR" :key="key" :value="key">{{ words }}</option>
        </select>
        from
        <select
          class="piece"
          aria-label="From which touchpoint"
          :value="wanted.touchpoint ?? ''"
          @change="set({ touchpoint: numbered($event) })"
        >
          <option value="">any touchpoint</option>
          <option value="0">no touchpoint</option>
          <option v-for="one in touchpoints" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
        for
        <select
          class="piece"
          aria-label="For whom"
          :value="wanted.member ?? ''"
          @change="set({ member: numbered($event) })"
        >
          <option value="">anybody</option>
          <option value="0">nobody yet</option>
          <option v-for="one in members" :key="one.id" :value="one.id">{{ one.name || one.email }}</option>
        </select>
        <template v-if="more">
          <select
            class="piece"
            aria-label="How it came"
            :value="wanted.via ?? ''"
            @change="set({ via: chosen($event) })"
          >
            <option value="">by any way</option>
            <option v-for="one in ways" :key="one.key" :value="one.key">{{ one.words }}</option>
          </select>
          on
          <select
            v-if="(sites?.length ?? 0) > 1"
            class="piece"
            aria-label="On which site"
            :value="wanted.site ?? ''"
            @change="set({ site: numbered($event) })"
          >
            <option value="">any site</option>
            <option v-for="one in sites" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select>
          <input
            class="piece w-32!"
            aria-label="On which page"
            placeholder="any page"
            maxlength="500"
            :value="wanted.page ?? ''"
            @change="set({ page: chosen($event).trim() })"
          />
          tagged
          <select
            class="piece"
            aria-label="Tagged"
            :value="wanted.tag ?? ''"
            @change="set({ tag: chosen($event) })"
          >
            <option value="">anything</option>
            <option v-for="one in tags" :key="one" :value="one">{{ one }}</option>
          </select>
          since
          <WhenBox
            piece
            aria-label="Since"
            :value="wanted.since ?? null"
            @set="set({ since: $event ?? '' })"
          />
          <select
            class="piece"
            aria-label="For how long nobody has touched it"
            :value="wanted.untouched ?? ''"
            @change="set({ untouched: numbered($event) })"
          >
            <option value="">touched or not</option>
            <option v-for="days in untouched" :key="days" :value="days">
              touched by nobody for {{ days }} open {{ days === 1 ? 'day' : 'days' }}
            </option>
          </select>
        </template>
        <button v-else type="button" class="btn-link text-sm" @click="open = true">and …</button>
      </p>
      <input
        ref="box"
        v-model="text"
        class="input w-44! max-md:w-full!"
        type="search"
        aria-label="Search the list"
        placeholder="Search any word"
        maxlength="200"
        @input="search"
        @keydown.esc.stop="((text = ''), search(), box?.blur())"
      />
    </div>
    <KeptRow
      v-if="narrows || filters?.length"
      :kept="kept"
      :current="current?.id ?? null"
      :narrows="narrows"
      what="this filter"
      all="Show everything open"
      :keep="(name, forAll) => keep(name, wanted, forAll)"
      :drop="drop"
      @go="(id) => emit('change', filters?.find((one) => one.id === id)?.wanted ?? {})"
    />
  </div>
</template>
