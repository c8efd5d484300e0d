<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useClock } from '@/lib/clock'
import { useKeys } from '@/lib/keys'
import { useNotices } from '@/lib/notices'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import AfterForm from './AfterForm.vue'
import { useEditing } from './editing'
import LookForm from './LookForm.vue'
import PartList from './PartList.vue'
import ReadyCheck from './ReadyCheck.vue'
import ShowSentence from './ShowSentence.vue'
import StageFrame from './StageFrame.vue'

const route = useRoute()
const id = Number(route.params.id)
const { zone, now } = useClock()
const notices = useNotices()
const { draft, document: edited, error, clash, status, edit, save, read, back, go, call } = useEditing(id)
const step = ref('ask')
const selected = ref<string | null>(null)
const name = ref('')
watch(draft, (fresh) => fresh && (name.value = fresh.name))
watch(edited, (document) => {
  if (document && !document.steps.some((one) => one.id === step.value)) step.value = document.steps[0]?.id ?? ''
})
useKeys([
  { keys: 'Ctrl Z', does: 'Undo the last change' },
  { keys: 'Ctrl Shift Z', does: 'Do it again' },
])
useEventListener(document, 'keydown', (event) => {
  const typing = event.target instanceof HTMLElement && event.target.matches('input, textarea, select')
  if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  event.preventDefault()
  void back(event.shiftKey ? 'redo' : 'undo')
})
const STEPS: Record<string, string> = { ask: 'Ask', thanks: 'Thanks' }
const live = computed(() => draft.value?.state === 'live')

function words(part: string, field: string, value: string) {
  edit(`${part}.${field}`, (document) => {
    const found = document.steps.flatMap((one) => one.parts).find((one) => one.id === part)
    if (found) Object.assign(found, { [field]: value })
  })
}
async function switchOn(way: 'on' | 'off' | 'live') {
  await go(way)
  if (error.value) return
  const said = { on: 'It is on: visitors get it within a second.', off: 'It is off.', live: 'Visitors get the changes within a second.' }
  notices.say(said[way])
}
function renamed() {
  if (name.value.trim() && name.value !== draft.value?.name) void call(name.value)
}
</script>

<template>
  <div class="flex h-full flex-col">
    <div v-if="!draft" class="p-5">
      <ErrorBox :error="error" :again="read" />
      <div v-if="!error" class="sheet h-96 opacity-60" aria-busy="true" />
    </div>
    <template v-if="draft && edited">
      <header class="flex flex-wrap items-center gap-3 border-b border-line bg-sheet px-5 py-2">
        <RouterLink to="/touchpoints" class="btn" aria-label="Back to all touchpoints">←</RouterLink>
        <h1 class="sr-only">{{ draft.name }}</h1>
        <input
          v-model="name"
          class="rounded border border-transparent px-1.5 py-1 font-head text-xl font-bold hover:border-line"
          :size="Math.max(8, name.length)"
          aria-label="Name of the touchpoint"
          @change="renamed"
        />
        <span class="text-ink-2" role="status">{{
          status === 'saved' ? `Saved ${saidTime(draft.saved_at, now, zone)}` : status === 'not saved' ? 'Not saved' : 'Saving …'
        }}</span>
        <span class="flex gap-1">
          <button type="button" class="btn" :disabled="!draft.can_undo" @click="back('undo')">Undo</button>
          <button type="button" class="btn" :disabled="!draft.can_redo" @click="back('redo')">Redo</button>
        </span>
        <span class="ml-auto flex items-center gap-3">
          <span v-if="draft.changed_since_live" class="font-semibold text-brass">changed since it went live</span>
          <span v-else-if="live" class="font-semibold text-moss">● On</span>
          <a v-if="live && draft.hosted[0]" :href="draft.hosted[0]" target="_blank" rel="noopener" class="btn-link">Its own page</a>
          <button v-if="live" type="button" class="btn" @click="switchOn('off')">Turn off</button>
          <button
            v-if="draft.live_number !== null && draft.changed_since_live"
            type="button"
            class="btn btn-main"
            @click="switchOn('live')"
          >
            Put changes live
          </button>
          <button v-if="!live" type="button" class="btn" :class="{ 'btn-main': !draft.changed_since_live }" @click="switchOn('on')">
            Turn on
          </button>
        </span>
      </header>
      <div v-if="error" class="border-b border-line bg-rust-tint px-5 py-2 text-rust" role="alert">
        {{ error.message }}
        <template v-if="clash">
          <button type="button" class="btn ml-3" @click="save(true)">Keep mine on top of it</button>
          <button type="button" class="btn ml-1" @click="read()">Take theirs</button>
        </template>
      </div>
      <div class="flex min-h-0 flex-1">
        <aside class="w-[332px] shrink-0 overflow-auto border-r border-line p-4" aria-label="Parts">
          <div class="mb-3 flex gap-1" role="group" aria-label="Step">
            <button
              v-for="one in edited.steps"
              :key="one.id"
              type="button"
              class="btn flex-1 justify-center"
              :class="{ '!border-petrol text-petrol': step === one.id }"
              :aria-pressed="step === one.id"
              @click="step = one.id"
            >
              {{ STEPS[one.id] ?? one.id }}
            </button>
          </div>
          <PartList v-model:selected="selected" :document="edited" :step="step" @edit="words" @change="edit" />
          <LookForm :document="edited" @change="edit" />
          <AfterForm :document="edited" @change="edit" />
        </aside>
        <section class="flex min-w-0 flex-1 flex-col" aria-label="Stage">
          <div class="flex min-h-0 flex-1 gap-4 bg-line-2 p-4">
            <figure class="flex min-w-0 flex-[2.6] flex-col">
              <figcaption class="mb-1 text-sm text-ink-2">desktop</figcaption>
              <StageFrame
                class="flex-1"
                :document="edited"
                :step="step"
                :width="1000"
                :height="700"
                title="Desktop"
                editable
                :selected="selected"
                @edit="words"
                @select="selected = $event"
              />
            </figure>
            <figure class="flex min-w-0 flex-1 flex-col">
              <figcaption class="mb-1 text-sm text-ink-2">phone</figcaption>
              <StageFrame
                class="flex-1"
                :document="edited"
                :step="step"
                :width="375"
                :height="700"
                title="Phone"
                editable
                :selected="selected"
                @edit="words"
                @select="selected = $event"
              />
            </figure>
          </div>
          <footer class="border-t border-line bg-sheet px-5 py-3">
            <ShowSentence :document="edited" @change="edit" />
            <ReadyCheck :findings="draft.findings" @go="selected = $event" />
          </footer>
        </section>
      </div>
    </template>
  </div>
</template>
