<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, nextTick, ref, toRef, watch } from 'vue'
import { useEventListener, useOnline } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { useFollowUp, useTags, useWork, type Work } from '@/api/follow-ups'
import { useMembers } from '@/api/me'
import { onOurs } from '@/lib/clock'
import { waiting } from '@/lib/outbox'
import { useNotices } from '@/lib/notices'
import { telOf } from '@/lib/tel'
import { saidLength, saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import AnswerBox from './AnswerBox.vue'
import FinishMenu from './FinishMenu.vue'
import TalkView from './TalkView.vue'
import PutOffMenu from './PutOffMenu.vue'
import TimelineList from './TimelineList.vue'
import { useNewestInView } from './newest'
import { OUTCOMES } from '@/lib/names'
import { ASIDE } from '@/lib/outbox'

const CallBox = defineAsyncComponent(() => import('./CallBox.vue'))
const props = defineProps<{ id: number; zone: string; now: Date }>()
const goesOn = defineModel<boolean>('goesOn', { required: true })
/** `done`: they are done with, for now; `left`: whoever wrote left the box. */
const emit = defineEmits<{ done: [id: number]; left: [] }>()
const router = useRouter()
const notices = useNotices()
const { data: one, dataUpdatedAt, error, refetch } = useFollowUp(toRef(props, 'id'))
const work = useWork()
const answer = ref<InstanceType<typeof AnswerBox>>()
/**
 * Asked to write before the person has been read: the box takes the caret as soon as it is there, and what was
 * typed until then.
 */
const wanted = ref<{ words: string; note: boolean } | null>(null)
const pane = ref<HTMLElement>()
const happened = ref<HTMLElement>()
const queries = useQueryClient()
function write(note = false) {
  if (answer.value && one.value?.id === props.id) answer.value.begin('', note)
  else wait(note)
}
/** What is typed from now on is meant for the box that is to come. */
function wait(note = false) {
  wanted.value = { words: '', note }
}
watch(answer, (box) => {
  if (!box || !wanted.value) return
  const { words, note } = wanted.value
  wanted.value = null
  void nextTick(() => box.begin(words, note))
})
// Whom nothing can be written to (finished, or not to be read) no words wait for.
watch(
  [one, error],
  () => {
    if (error.value || (one.value?.id === props.id && !answer.value)) wanted.value = null
  },
  { flush: 'post' },
)
useEventListener(
  document,
  'keydown',
  (event) => {
    if (!wanted.value || event.ctrlKey || event.metaKey || event.altKey) return
    const typed = { Enter: '\n', Backspace: '' }[event.key] ?? (event.key.length === 1 ? event.key : null)
    if (event.key === 'Escape' || event.key === 'Tab') wanted.value = null
    if (typed === null || !wanted.value) return
    event.preventDefault()
    event.stopImmediatePropagation()
    const { words, note } = wanted.value
    wanted.value = { words: event.key === 'Backspace' ? words.slice(0, -1) : words + typed, note }
  },
  { capture: true },
)
/** A key that came before the person did. */
let pressed = ''
watch(
  () => one.value?.id === props.id,
  (there) => {
    const key = pressed
    pressed = ''
    if (there && key) void nextTick(() => press(key))
  },
)
watch(
  () => props.id,
  () => (pressed = ''),
)
/** What a key does here: its button is pressed, its box takes the caret. False where there is none. */
function press(key: string): boolean {
  if (one.value?.id !== props.id && !error.value) {
    pressed = key
    return true
  }
  if (key === 'n') {
    write(true)
    return true
  }
  const found = pane.value?.querySelector<HTMLElement>(`[data-key=${key}]`)
  const target = found?.matches('div, span') ? found.querySelector<HTMLElement>('button') : found
  target?.focus()
  if (target?.matches('button')) target.click()
  return !!target
}
defineExpose({ write, wait, press })

const source = computed(() => {
  if (!one.value) return ''
  let path = one.value.page
  try {
    path = new URL(path).pathname
  } catch {
    // Shown as it came.
  }
  const visits = [...one.value.timeline].reverse().find((event) => typeof event.data.visits === 'number')
    ?.data.visits
  return [path, one.value.device, typeof visits === 'number' && visits > 1 ? `visit ${visits}` : '']
    .filter(Boolean)
    .join(' · ')
})
const { data: members } = useMembers()
const { data: known } = useTags()
const fresh = ref('')
async function give(event: Event) {
  const to = Number((event.target as HTMLSelectElement).value) || null
  const before = one.value?.member_id ?? null
  const id = props.id
  try {
    const now = await work.mutateAsync({ id, work: { do: 'give', member: to } })
    notices.say(to ? `Given to ${now?.member}.` : 'It is everybody’s again.', {
      undo: () => work.mutateAsync({ id, work: { do: 'give', member: before } }),
    })
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
async function invitation(event: number, says: Extract<Work, { do: 'invitation' }>['says']) {
  try {
    await work.mutateAsync({ id: props.id, work: { do: 'invitation', event, says } })
    notices.say('Your answer to the invitation is on its way.')
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
async function tag(name: string, on: boolean) {
  if (!name.trim()) return
  try {
    await work.mutateAsync({ id: props.id, work: { do: 'tag', tag: name, on } })
    if (on) fresh.value = ''
    void queries.invalidateQueries({ queryKey: ['tags'] })
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
// What is being written is never taken away, even if a colleague finishes meanwhile.
const writing = ref(false)
watch(
  () => props.id,
  () => (writing.value = false),
)
const online = useOnline()
/** What was done here without a network. */
const mine = computed(() => waiting.value.filter((each) => each.id === props.id))
useNewestInView(
  happened,
  () => one.value?.id,
  () => one.value?.timeline.length ?? 0,
  () => mine.value.length,
)
const finished = computed(() => one.value?.state === 'finished')

async function act(what: Work, said: string) {
  const id = props.id
  try {
    const done = await work.mutateAsync({ id, work: what })
    if (!done) return notices.say(ASIDE)
    notices.say(said, { undo: () => work.mutateAsync({ id, work: { do: 'take-up' } }) })
    if (what.do !== 'take-up') emit('done', id)
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
</script>

<template>
  <section
    ref="pane"
    data-person
    tabindex="-1"
    class="flex min-w-0 flex-col"
    :aria-label="one?.called ?? 'Person'"
  >
    <div class="p-5 pb-0 max-md:p-3">
      <ErrorBox :error="one && !online ? null : error" :again="() => refetch()" />
    </div>
    <template v-if="one">
      <header class="border-b border-line-2 px-5 pb-3 max-md:px-3">
        <div class="mb-2 flex flex-wrap items-center gap-2">
          <button
            type="button"
            class="btn mr-auto md:hidden"
            @click="router.push({ path: '/follow-up', query: $route.query })"
          >
            ← List
          </button>
          <h1 class="min-w-0 flex-1 truncate max-md:order-last max-md:basis-full" dir="auto">
            {{ one.called }}
          </h1>
          <template v-if="!finished">
            <button
              v-if="one.state !== 'for-us'"
              type="button"
              class="btn"
              @click="act({ do: 'take-up' }, 'It is for us again.')"
            >
              Take up again
            </button>
            <template v-if="one.kind === 'call-back'">
              <button
                type="button"
                class="btn btn-main"
                @click="act({ do: 'finish', outcome: 'answered' }, `Reached ${one.called}.`)"
              >
                Reached
              </button>
              <PutOffMenu
                :zone="zone"
                :now="now"
                :opening="one.next_opening"
                data-key="p"
                label="Not reached: again …"
                @until="(until, said) => act({ do: 'put-off', until }, `Not reached. Again ${said}.`)"
              />
            </template>
            <PutOffMenu
              v-else
              data-key="p"
              :zone="zone"
              :now="now"
              :opening="one.next_opening"
              @waits="act({ do: 'wait' }, `Waiting for ${one.called}.`)"
              @until="(until, said) => act({ do: 'put-off', until }, `Put off until ${said}.`)"
            />
            <FinishMenu @finish="(outcome, said) => act({ do: 'finish', outcome }, `Finished: ${said}.`)" />
          </template>
          <button v-else type="button" class="btn" @click="act({ do: 'take-up' }, 'It is for us again.')">
            Take up again
          </button>
        </div>
        <dl class="grid grid-cols-[6rem_minmax(0,1fr)] gap-y-1">
          <template v-for="address in one.addresses" :key="address.shown">
            <dt class="text-ink-2">{{ address.kind === 'email' ? 'Email' : 'Phone' }}</dt>
            <dd class="break-all">
              <a v-if="address.kind === 'phone'" class="btn-link" :href="telOf(address.shown)">{{
                address.shown
              }}</a><template v-else>{{ address.shown }}</template
              ><span v-if="address.note" class="block text-sm text-rust"
                >▲ {{ address.note }}: nothing is mailed there</span
              >
            </dd>
          </template>
          <dt class="text-ink-2">Answer by</dt>
          <dd>
            <template v-if="finished"
              >finished: {{ OUTCOMES[one.outcome as keyof typeof OUTCOMES]?.toLowerCase() }}</template
            >
            <template v-else-if="one.state === 'for-them'">it is their turn</template>
            <template v-else-if="one.due"
              ><strong :class="one.lane === 'late' ? 'text-rust' : 'text-brass'">{{
                saidTime(one.due, now, zone)
              }}</strong>
              <span class="text-ink-2">{{
                one.lane === 'late'
                  ? ` — ${saidLength(one.late_minutes)} late in open time`
                  : ` — ${saidLength(one.left_minutes)} of open time left`
              }}</span></template
            >
            <template v-else>no set time</template>
            <span v-if="one.state === 'for-them' && one.back_at" class="text-ink-2">
              · ours again {{ saidTime(one.back_at, now, zone) }}</span
            >
            <span v-if="one.state === 'put-off' && one.back_at" class="text-ink-2">
              · put off until {{ saidTime(one.back_at, now, zone) }}</span
            >
          </dd>
          <dt class="text-ink-2">Came from</dt>
          <dd class="break-all">{{ [one.touchpoint || one.via, source].filter(Boolean).join(' · ') }}</dd>
          <dt><label :for="`give-${one.id}`" class="text-ink-2">Whose</label></dt>
          <dd>
            <select
              :id="`give-${one.id}`"
              data-key="g"
              class="input w-auto! max-w-full py-0.5!"
              :value="one.member_id ?? ''"
              @change="give"
            >
              <option value="">everybody’s</option>
              <option v-for="member in members" :key="member.id" :value="member.id">
                {{ member.name || member.email }}
              </option>
            </select>
          </dd>
          <dt class="text-ink-2">Card</dt>
          <dd>
            <RouterLink class="btn-link" :to="`/people/${one.person_id}`">everything about them</RouterLink>
          </dd>
          <dt class="text-ink-2">Tags</dt>
          <dd class="flex flex-wrap items-center gap-1.5">
            <span
              v-for="each in one.tags"
              :key="each.tag"
              class="chip"
              :title="each.given_by ? `given by ${each.given_by}` : 'your own'"
              >{{ each.tag }}
              <button
                type="button"
                class="ml-0.5"
                :aria-label="`Take off ${each.tag}`"
                @click="tag(each.tag, false)"
              >
                ✕
              </button></span
            >
            <form class="flex gap-1" @submit.prevent="tag(fresh, true)">
              <input
                v-model="fresh"
                data-key="t"
                class="input w-28! py-0.5!"
                aria-label="Another tag"
                placeholder="+ tag"
                list="known-tags"
                maxlength="60"
              />
              <datalist id="known-tags"><option v-for="each in known" :key="each" :value="each" /></datalist>
            </form>
          </dd>
          <template v-for="other in one.perhaps_same" :key="other.id">
            <dt class="text-brass">Perhaps</dt>
            <dd>
              the same person as
              <RouterLink class="btn-link" dir="auto" :to="`/people/${other.id}`">{{
                other.name
              }}</RouterLink>:
              {{ other.why }}
            </dd>
          </template>
        </dl>
      </header>
      <div
        ref="happened"
        class="min-h-0 flex-1 overflow-auto p-5 max-md:p-3"
        tabindex="0"
        role="region"
        aria-label="What happened"
      >
        <CallBox
          v-if="one.timeline.some(({ kind }) => kind === 'asked for a call')"
          :id="one.id"
          :called="one.called"
        />
        <TimelineList :events="one.timeline" :zone="zone" :now="now" answers @answer="invitation" />
        <ul v-if="mine.length" class="mt-2.5 grid gap-2" aria-label="Waiting for a connection">
          <li
            v-for="each in mine"
            :key="each.once"
            class="rounded-md border border-dashed border-brass px-3 py-2 whitespace-pre-wrap"
          >
            <span class="text-sm text-brass">{{
              each.wrong ? 'Not done' : 'Waits for a connection'
            }}</span><br />{{ each.words }}
          </li>
        </ul>
        <TalkView
          :id="one.id"
          class="mt-4 empty:hidden"
          :zone="zone"
          :now="now"
          :stamp="String(one.timeline.length)"
          @more="(refetch(), queries.invalidateQueries({ queryKey: ['follow-ups'] }))"
        />
      </div>
      <p v-if="!online" class="mx-5 mb-1 max-md:mx-3 text-sm text-brass">
        No connection: this is how it was {{ saidTime(onOurs(dataUpdatedAt, now), now, zone) }}.
      </p>
      <AnswerBox
        v-if="!finished || writing || one.draft"
        :key="one.id"
        ref="answer"
        class="m-5 mt-0 max-md:m-3 max-md:mt-0"
        :one="one"
        :zone="zone"
        :now="now"
        @writing="(on) => (writing = on)"
        @sent="(id) => emit('done', id)"
        @left="emit('left')"
      />
      <label v-if="!finished" class="mx-5 mb-3 flex items-center gap-1.5 text-sm text-ink-2 max-md:mx-3"
        ><input v-model="goesOn" type="checkbox" /> once they are done with, go on to the next</label
      >
    </template>
    <p v-else-if="!online" class="m-5 text-ink-2">
      This was not opened on this device before; it can be read once there is a connection.
    </p>
    <div v-else-if="!error" class="m-5 h-40 rounded bg-fog" aria-busy="true" />
  </section>
</template>
