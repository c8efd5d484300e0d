<script setup lang="ts">
import type { SeenDocument } from '@visitor/render'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useDebounceFn, useEventListener } from '@vueuse/core'
import { computed, provide, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import {
  bringBack,
  copy,
  covered,
  csvAddress,
  extras,
  forgetShowings,
  placeOn,
  returnTo,
  throwAway,
  turn,
  turnInto,
  useAddable,
  type Draft,
} from '@/api/touchpoints'
import { useKeys } from '@/lib/keys'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import AddPart from './AddPart.vue'
import AfterForm from './AfterForm.vue'
import { useEditing } from './editing'
import EditorHeader from './EditorHeader.vue'
import FaceForm from './FaceForm.vue'
import LookBack from './LookBack.vue'
import LookForm from './LookForm.vue'
import PartList from './PartList.vue'
import PutLive from './PutLive.vue'
import ReadyCheck from './ReadyCheck.vue'
import { FIRST_WORDS } from './fresh'
import { LOGO, seenOf } from './seen'
import ShowSentence from './show/ShowSentence.vue'
import StageFoot from './StageFoot.vue'
import StagePair from './StagePair.vue'
import StepTabs from './StepTabs.vue'
import WholeForm from './WholeForm.vue'
import { SIDES, useGoing, type Side } from './going'
import { nameOf } from './words'

const route = useRoute()
const router = useRouter()
const id = Number(route.params.id)
const notices = useNotices()
const queries = useQueryClient()
const {
  draft,
  document: edited,
  error,
  clash,
  status,
  edit,
  save,
  read,
  back,
  go,
  call,
  turned,
  take,
} = useEditing(id)
const language = computed(() => edited.value?.language ?? '')
const { data: addable } = useAddable(id, language)
const step = ref('ask')
const selected = ref<string | null>(null)
const side = ref<Side>('content')
const adding = ref<InstanceType<typeof PartList>>()
const open = ref<'history' | 'live' | null>(null)
const nameKnown = ref(false)
const share = ref<number | null>(null)
watch(edited, (document) => {
  if (document && !document.steps.some((one) => one.id === step.value))
    step.value = document.steps[0]?.id ?? ''
})
const logo = computed(() => draft.value?.logo ?? null)
provide(LOGO, logo)
provide(
  FIRST_WORDS,
  computed(() => addable.value?.words),
)
const seen = computed(() =>
  edited.value && draft.value
    ? seenOf(edited.value, draft.value.look, draft.value.speech as SeenDocument['speech'], logo.value)
    : null,
)
/** What could not be kept, by its place; everything else is. */
const wrong = computed<Record<string, string>>(() => draft.value?.refused ?? {})
const unkept = computed(() =>
  Object.entries(wrong.value).map(([place, words]) => {
    const part = edited.value?.steps.flatMap((one) => one.parts).find((one) => place.split('.')[0] === one.id)
    return { place: part ? part.id : place, words: part ? `${nameOf(part)}: ${words}` : words }
  }),
)
const { goTo, fix } = useGoing({ edited, side, step, selected, save, open })
const { data: extra } = useQuery({
  queryKey: computed(() => ['extras', id, draft.value?.number]),
  queryFn: () => extras(id),
  placeholderData: (before) => before,
})
async function forget() {
  await turned(() => forgetShowings(id))
  if (!error.value) notices.say('Past showings are forgotten: everybody may get it again.')
}
/** On one more site, or on one fewer: seen from where it stands when its turn comes. */
const stand = (site: number, on: boolean) =>
  turned(() =>
    placeOn(id, [
      ...(draft.value?.sites ?? []).map((one) => one.id).filter((one) => one !== site),
      ...(on ? [site] : []),
    ]),
  )
const boxed = useDebounceFn(async (width: number, height: number) => {
  // Without a network the share that was said last stands.
  share.value = await covered(width, height, 375, 700).catch(() => share.value)
}, 200)
/** A visit to a page that it is for, as if it were on as it stands now. */
const rehearsal = computed(() => ({
  path: '/touchpoints/rehearse',
  query: {
    touchpoint: id,
    site: draft.value?.sites[0]?.id,
    path: draft.value?.example_page,
    visitor: `{"draft":${id}}`,
  },
}))
const house = computed(() => draft.value?.has_house ?? false)

useKeys([
  { keys: 'Ctrl Z', does: 'Undo the last change' },
  { keys: 'Ctrl Shift Z', does: 'Do it again' },
  { keys: '↑ ↓', does: 'From part to part' },
  { keys: 'Alt ↑ ↓', does: 'Move a part' },
  { keys: 'Delete', does: 'Remove a part' },
])
useEventListener(document, 'keydown', (event) => {
  const typing =
    event.target instanceof HTMLElement &&
    event.target.matches('input, textarea, select, [contenteditable=true]')
  if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  event.preventDefault()
  void back(event.shiftKey ? 'redo' : 'undo')
})

function words(part: string, field: string, value: string) {
  edit(`${part}.${field}`, (document) => {
    const found = document.steps.flatMap((one) => one.parts).find((one) => one.id === part)
    if (found) Object.assign(found, { [field]: value })
  })
}
function useShade(reading: Draft['readings'][number]) {
  edit('shade', (document) => {
    const part = document.steps.flatMap((one) => one.parts).find((one) => one.id === reading.part)
    const look = reading.phone ? document.look.phone : document.look
    if (reading.role === 'part' && part && 'colour' in part) part.colour = reading.better
    else if (reading.role !== 'part') look.colours[reading.role as keyof typeof look.colours] = reading.better
  })
}
async function switchTo(way: 'on' | 'off' | 'live') {
  const wasLive = draft.value?.state === 'live'
  open.value = null
  await go(way)
  if (way === 'live' && !wasLive && !error.value) await turned(() => turn(id, 'on'))
  if (error.value) return
  const said = {
    on: 'It is on: visitors get it within a second.',
    off: 'It is off.',
    live: 'Visitors get the changes within a second.',
  }
  notices.say(said[way])
}
async function again(language = '') {
  const made = await copy(id, language)
  await queries.invalidateQueries({ queryKey: ['touchpoints'] })
  await router.push('/touchpoints')
  await router.push(`/touchpoints/${made.id}`)
}
async function remove() {
  const wasOn = draft.value?.state === 'live'
  const name = draft.value?.name
  await throwAway(id)
  await queries.invalidateQueries()
  await router.push('/touchpoints')
  notices.say(`${name} is thrown away.`, {
    undo: () => bringBack(id, wasOn),
  })
}
</script>

<template>
  <div class="flex h-full flex-col">
    <div v-if="!draft" class="p-5">
      <ErrorBox :error="error" :again="read" />
      <div v-if="!error" class="sheet h-96 opacity-60" aria-busy="true" />
    </div>
    <template v-if="draft && edited && seen && addable">
      <EditorHeader
        :draft="draft"
        :status="status"
        @rename="call"
        @turn="turned(() => turnInto(id, $event))"
        @back="back"
        @history="save().then(() => (open = 'history'))"
        @live="save().then(() => (open = 'live'))"
        @off="switchTo('off')"
        @copy="again()"
        @remove="remove"
      />
      <ul v-if="unkept.length" class="border-b border-line bg-brass-tint px-5 py-2" role="alert">
        <li v-for="one in unkept" :key="one.place + one.words">
          Not kept: {{ one.words }}
          <button type="button" class="btn-link ml-1" @click="goTo(one.place)">Show it</button>
        </li>
      </ul>
      <div v-if="error" class="border-b border-line bg-rust-tint px-5 py-2 text-rust" role="alert">
        {{ error.message }}
        <template v-if="clash">
          <button type="button" class="btn ml-3" @click="save(true)">Keep mine on top of it</button>
          <button type="button" class="btn ml-1" @click="read()">Take theirs</button>
        </template>
      </div>
      <div class="flex min-h-0 flex-1 max-md:flex-col max-md:overflow-auto">
        <aside
          class="flex w-[332px] shrink-0 flex-col border-r border-line max-md:w-full max-md:border-0"
          aria-label="Parts"
        >
          <div class="flex gap-1 border-b border-line p-3" role="tablist" aria-label="What is edited">
            <button
              v-for="(name, key) in SIDES"
              :id="`side-${key}`"
              :key="key"
              type="button"
              role="tab"
              class="btn flex-1 justify-center px-1!"
              :class="{ '!border-petrol bg-petrol-tint text-petrol': side === key }"
              :aria-selected="side === key"
              @click="side = key"
            >
              {{ name }}
            </button>
          </div>
          <div
            v-show="side === 'content'"
            data-side="content"
            class="flex min-h-0 flex-1 flex-col"
            role="tabpanel"
            aria-labelledby="side-content"
          >
            <div class="min-h-0 flex-1 overflow-auto p-4 pb-2">
              <FaceForm v-if="edited.stance === 'button'" class="mb-4" :document="edited" @change="edit" />
              <StepTabs
                v-model:step="step"
                :document="edited"
                :following="addable.following"
                @change="edit"
              />
              <PartList
                ref="adding"
                v-model:selected="selected"
                :wrong="wrong"
                :document="edited"
                :step="step"
                :thanks="addable.thanks"
                @change="edit"
              />
            </div>
            <AddPart
              class="border-t border-line px-4 py-2"
              :parts="addable.parts"
              @add="adding?.add($event)"
            />
          </div>
          <div
            v-show="side === 'look'"
            data-side="look"
            class="min-h-0 flex-1 overflow-auto p-4"
            role="tabpanel"
            aria-labelledby="side-look"
          >
            <LookForm
              :document="edited"
              :worked="draft.look"
              :departures="draft.departures"
              :places="draft.places"
              :house="house"
              :css-error="wrong['look.css']"
              @change="edit"
            />
          </div>
          <div
            v-show="side === 'after'"
            data-side="after"
            class="min-h-0 flex-1 overflow-auto p-4"
            role="tabpanel"
            aria-labelledby="side-after"
          >
            <AfterForm
              :document="edited"
              :draft="draft"
              :wrong="wrong"
              @change="edit"
              @confirm="turned(() => turnInto(id, { confirm: $event }))"
              @csv="turned(() => csvAddress(id, $event))"
              @draft="take($event, false)"
            />
            <h2 class="mt-5 mb-2 font-body! text-base! text-ink-2">Its language, sites, place and links</h2>
            <WholeForm
              :document="edited"
              :draft="draft"
              :wrong="wrong"
              @change="edit"
              @site="stand"
              @copy="again"
            />
          </div>
        </aside>
        <section class="flex min-w-0 flex-1 flex-col max-md:order-first max-md:flex-none" aria-label="Stage">
          <StagePair
            v-model:known="nameKnown"
            :document="seen"
            :step="step"
            :selected="selected"
            :extras="extra"
            @edit="words"
            @select="((selected = $event), (side = 'content'))"
            @box="boxed"
          />
          <StageFoot :readings="draft.readings" :share="share" @use="useShade" @go="goTo" />
          <footer class="border-t border-line bg-sheet px-5 py-2.5">
            <ShowSentence :document="edited" :draft="draft" @change="edit" @forget="forget" />
            <ReadyCheck :findings="draft.findings" @go="goTo">
              <RouterLink :to="rehearsal" class="btn-link ml-auto">Rehearse a visit</RouterLink>
            </ReadyCheck>
          </footer>
        </section>
      </div>
      <LookBack
        v-if="open === 'history'"
        :id="id"
        :name="draft.name"
        @close="open = null"
        @back="(number) => ((open = null), turned(() => returnTo(id, number)))"
      />
      <PutLive v-if="open === 'live'" :draft="draft" @close="open = null" @go="switchTo" @fix="fix" />
    </template>
  </div>
</template>
