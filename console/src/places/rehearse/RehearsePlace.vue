<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { Failure } from '@/api/client'
import { useDay } from '@/api/follow-ups'
import {
  freshVisitor,
  linkFor,
  rehearse,
  useForgetVisitor,
  useKeepVisitor,
  useVisitors,
  type Deed,
  type MadeUp,
  type Rehearsal,
} from '@/api/rehearsals'
import { useSites } from '@/api/sites'
import { useTouchpoints } from '@/api/touchpoints'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import DeedList from './DeedList.vue'
import { sayTime } from './deeds'
import ReasonList from './ReasonList.vue'
import TrackChart from './TrackChart.vue'
import VisitorForm from './VisitorForm.vue'

/** Plays a visit of a made-up visitor; nothing of it is counted. */
const route = useRoute()
const notices = useNotices()
const { data: day } = useDay()
const { data: sites } = useSites()
const { data: touchpoints } = useTouchpoints()
const { data: saved } = useVisitors()
const keep = useKeepVisitor()
const forget = useForgetVisitor()
const site = ref(Number(route.query.site) || 0)
watch(sites, (found) => (site.value ||= found?.[0]?.id ?? 0), { immediate: true })
const zone = computed(() => day.value?.timezone ?? 'UTC')
const path = typeof route.query.path === 'string' ? route.query.path : '/'
const visitors = reactive<MadeUp[]>([])
watch(
  day,
  (found) => {
    if (!found || visitors.length) return
    const told = typeof route.query.visitor === 'string' ? (JSON.parse(route.query.visitor) as MadeUp) : null
    visitors.push({ ...freshVisitor(found.at), ...told })
  },
  { immediate: true },
)
const shown = ref(0)
const deeds = ref<Deed[]>([
  { at: 0, do: 'page', url: path, screens: 3 },
  { at: 14, do: 'scroll', to: 45 },
  { at: 20, do: 'close' },
])
const length = computed(() => (deeds.value[deeds.value.length - 1]?.at ?? 0) + 15)
const played = ref<Rehearsal[]>([])
const error = ref<Error | null>(null)
const wrong = computed(() => (error.value instanceof Failure ? error.value.fields : {}))
const pin = ref<number | null>(null)
const chosen = ref<number | null>(Number(route.query.touchpoint) || null)
const slugs = computed(() => (touchpoints.value ?? []).map((one) => one.slug))

const play = useDebounceFn(async () => {
  if (!site.value || !visitors.length) return
  try {
    played.value = await Promise.all(
      visitors.map((one) => rehearse(site.value, one, deeds.value, length.value)),
    )
    error.value = null
    pin.value = pin.value === null ? Math.max(0, length.value - 12) : Math.min(pin.value, length.value)
    chosen.value ??= played.value[0]?.tracks[0]?.id ?? null
  } catch (problem) {
    error.value = problem as Error
  }
}, 150)
watch([site, visitors, deeds, touchpoints], () => void play(), { deep: true, immediate: true })

const told = computed(() => {
  const track = played.value[shown.value]?.tracks.find((one) => one.id === chosen.value)
  const stretch =
    track?.stretches.find((one) => (pin.value ?? 0) >= one.start && (pin.value ?? 0) < one.end) ??
    track?.stretches[track.stretches.length - 1]
  return track && stretch ? { track, stretch } : null
})
const VERDICTS: Record<string, string> = {
  'on screen': 'on screen',
  waits: 'waits for its moment',
  'waits its turn': 'waits its turn',
  'kept back': 'not showing',
}
const set = (patch: Partial<MadeUp>) => Object.assign(visitors[shown.value] ?? {}, patch)
function compare() {
  const first = visitors[0]
  if (!first) return
  if (visitors.length > 1) {
    visitors.splice(1)
    shown.value = 0
  } else {
    visitors.push({
      ...first,
      visits: first.visits > 1 ? 1 : 3,
      device: first.device === 'phone' ? 'desktop' : 'phone',
    })
    shown.value = 1
  }
}
const name = ref('')
async function save() {
  const visitor = visitors[shown.value]
  if (!visitor || !name.value.trim()) return
  await keep.mutateAsync({ name: name.value.trim(), document: visitor })
  notices.say(`${name.value.trim()} is kept.`)
  name.value = ''
}
function take(event: Event) {
  const found = saved.value?.find((one) => String(one.id) === (event.target as HTMLSelectElement).value)
  if (found) set(found.document)
}
const opening = ref(false)
async function openReal() {
  const visitor = visitors[shown.value]
  if (!visitor) return
  opening.value = true
  try {
    const first = deeds.value.find((one) => one.do === 'page')
    window.open(
      await linkFor(site.value, visitor, first?.do === 'page' ? first.url : '/'),
      '_blank',
      'noopener',
    )
  } catch (problem) {
    notices.say((problem as Error).message, { bad: true })
  }
  opening.value = false
}
const title = (at: number) => (visitors.length > 1 ? (at ? 'The other visitor' : 'The visitor') : undefined)
</script>

<template>
  <div class="flex h-full flex-col">
    <header class="flex flex-wrap items-center gap-3 border-b border-line bg-sheet px-5 py-2.5">
      <RouterLink to="/touchpoints" class="btn px-2!" aria-label="Back to all touchpoints">←</RouterLink>
      <h1>Rehearse a visit</h1>
      <select
        v-if="saved?.length && visitors.length"
        class="input w-auto!"
        aria-label="Take a visitor you kept"
        value=""
        @change="take"
      >
        <option value="" disabled>a visitor you kept …</option>
        <option v-for="one in saved" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <select v-if="(sites?.length ?? 0) > 1" v-model="site" class="input w-auto!" aria-label="Site">
        <option v-for="one in sites" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <span class="mr-auto text-ink-2">Nothing you do here is counted.</span>
      <button type="button" class="btn" @click="compare">
        {{ visitors.length > 1 ? 'Only one visitor' : 'Compare with another visitor' }}
      </button>
      <button type="button" class="btn" :disabled="opening" @click="openReal">
        Open the real page like this
      </button>
    </header>
    <div class="flex min-h-0 flex-1 flex-col max-lg:overflow-auto lg:flex-row">
      <aside class="shrink-0 border-line bg-sheet p-4 lg:w-80 lg:overflow-auto lg:border-r">
        <div v-if="visitors.length > 1" class="mb-2 flex gap-1" role="group" aria-label="Which visitor">
          <button
            v-for="at in [0, 1]"
            :key="at"
            type="button"
            class="btn flex-1 justify-center"
            :class="{ '!border-petrol text-petrol': shown === at }"
            :aria-pressed="shown === at"
            @click="shown = at"
          >
            {{ title(at) }}
          </button>
        </div>
        <h2 v-else class="mb-2">The visitor</h2>
        <VisitorForm v-if="visitors[shown]" :visitor="visitors[shown]!" :zone="zone" @set="set" />
        <form class="mt-2 flex gap-1.5" @submit.prevent="save">
          <input
            v-model="name"
            class="input"
            placeholder="keep them as …"
            aria-label="Name to keep this visitor by"
            maxlength="80"
          />
          <button class="btn" :disabled="!name.trim()">Keep</button>
        </form>
        <p v-if="saved?.length" class="mt-1 text-sm text-ink-2">
          <template v-for="(one, at) in saved" :key="one.id"
            >{{ at ? ', ' : 'Kept: ' }}{{ one.name }}
            <button
              type="button"
              class="min-h-6 min-w-6 text-rust"
              :aria-label="`Forget ${one.name}`"
              @click="forget.mutate(one.id)"
            >
              ×
            </button></template
          >
        </p>
        <h2 class="mt-4 mb-2">What they do</h2>
        <DeedList :deeds="deeds" :wrong="wrong" :slugs="slugs" @set="deeds = $event" />
      </aside>
      <section class="min-w-0 p-5 lg:flex-1 lg:overflow-auto">
        <ErrorBox :error="error" :again="() => play()" />
        <div v-for="(one, at) in played" :key="at" class="mb-5 overflow-x-auto pt-5">
          <TrackChart
            class="min-w-[34rem]"
            :played="one"
            :pin="pin ?? 0"
            :chosen="chosen"
            v-bind="title(at) ? { title: title(at) } : {}"
            @pin="(moment, touchpoint) => ((pin = moment), (chosen = touchpoint ?? chosen), (shown = at))"
          />
        </div>
        <div v-if="told" class="sheet p-4" aria-live="polite">
          <h2 class="mb-2">
            {{ told.track.name }} at {{ sayTime(pin ?? 0) }} — {{ VERDICTS[told.stretch.doing] }}
            <RouterLink :to="`/touchpoints/${told.track.id}`" class="btn-link ml-2 text-base font-normal"
              >Change its rules</RouterLink
            >
          </h2>
          <p class="mb-2">{{ told.stretch.words }}</p>
          <p v-if="told.stretch.said" class="mb-2">
            Whoever sends it at {{ sayTime(told.stretch.start) }} is told: “{{ told.stretch.said }}”
          </p>
          <div v-if="told.stretch.channels.length" class="mb-2">
            <p>The ways to reach you that it shows then:</p>
            <ul class="list-disc pl-5">
              <li v-for="one in told.stretch.channels" :key="one">{{ one }}</li>
            </ul>
          </div>
          <ReasonList :reasons="told.stretch.reasons" />
        </div>
      </section>
    </div>
  </div>
</template>
