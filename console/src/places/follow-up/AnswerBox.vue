<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useLocalStorage, useThrottleFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import {
  enclose,
  leaveOut,
  sitDown,
  tellTyping,
  useProposed,
  useWork,
  type Enclosure,
  type KeptAnswer,
  type One,
} from '@/api/follow-ups'
import { Failure } from '@/api/client'
import { useNotices } from '@/lib/notices'
import { saidTime } from '@/lib/time'
import KeptAnswers from './KeptAnswers.vue'
import { ASIDE } from '@/lib/outbox'
import PutOffMenu from './PutOffMenu.vue'
import { useDesk } from './desk'
import { keyFor, sendOff } from './leaving'

const props = defineProps<{ one: One; zone: string; now: Date }>()
const notices = useNotices()
const work = useWork()
const queries = useQueryClient()
const { data: proposed } = useProposed(computed(() => props.one.id))
const emit = defineEmits<{ writing: [on: boolean]; sent: [id: number]; left: [] }>()
// Kept on the server as it is written, and found again on another device.
const { text, others } = useDesk(() => props.one)
watch(text, (now) => emit('writing', !!now), { immediate: true })
const then = ref<'wait' | 'finish' | 'keep' | 'remind'>('wait')
const until = ref('')
// Without a word of theirs for so many open days it is ours again; 0: it stays with them.
const backIn = useLocalStorage('intavo-back-in', 0)
const wrong = ref('')
const box = ref<HTMLTextAreaElement>()
const way = ref(props.one.ways[0]?.key ?? '')
/** Words that were typed before the box was there stand in it. */
function begin(words = '', asNote = false) {
  if (asNote) way.value = 'note'
  text.value += words
  box.value?.focus()
}
defineExpose({ begin })

const note = computed(() => way.value === 'note' || !props.one.ways.length)
const can = computed(() => props.one.ways.length > 0 || note.value)
const HINTS: Record<string, string> = {
  mail: 'Write an answer; it goes out by mail',
  talk: 'Write an answer; it stands in the conversation at once',
  note: 'Write a note; only you and your colleagues see it',
}
const typing = useThrottleFn(() => {
  if (way.value === 'talk' && text.value) void tellTyping(props.one.id).catch(() => undefined)
}, 4000)
/** A kept answer goes in where the caret is; what it was is counted when it is sent. */
const kept = ref<InstanceType<typeof KeptAnswers>>()
const used = ref<number | null>(null)
function put(one: KeptAnswer) {
  const area = box.value
  const [from, to] = area ? [area.selectionStart, area.selectionEnd] : [text.value.length, text.value.length]
  text.value = text.value.slice(0, from) + one.words + text.value.slice(to)
  used.value = one.id
  area?.focus()
}
function slash(event: KeyboardEvent) {
  if (event.key !== '/' || text.value) return
  event.preventDefault()
  void kept.value?.show()
}
const said = computed(() => (until.value ? saidTime(until.value, props.now, props.zone) : ''))
const ENDS = {
  wait: 'Now it is their turn.',
  finish: 'Finished.',
  keep: 'It stays with us.',
  remind: 'It comes back by itself.',
}

async function keepNote() {
  const [id, said] = [props.one.id, text.value]
  try {
    const done = await sendOff(id, said, () => work.mutateAsync({ id, work: { do: 'note', text: said } }))
    wrong.value = ''
    // What is written next is most likely for them.
    way.value = props.one.ways[0]?.key ?? ''
    notices.say(done ? 'The note is kept.' : ASIDE)
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This was not kept; your text is still here.'
  }
}
/** Files that go along, where the way takes some. */
const takesFiles = computed(() => props.one.ways.some((each) => each.key === way.value && each.files))
const files = ref<Enclosure[]>([])
const picker = ref<HTMLInputElement>()
const taking = ref(false)
async function choose() {
  wrong.value = ''
  taking.value = true
  try {
    for (const file of picker.value?.files ?? []) files.value = [...files.value, await enclose(file)]
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This file could not be taken up.'
  } finally {
    taking.value = false
    if (picker.value) picker.value.value = ''
  }
}
async function without(file: Enclosure) {
  files.value = files.value.filter((one) => one.id !== file.id)
  await leaveOut(file.id).catch(() => undefined)
}
/**
 * The last entry of the timeline when this was opened or last sent; what a colleague answers after it is told
 * before this goes. That it stands in the timeline by then does not say that whoever writes has seen it.
 */
const seen = computed(() => Math.max(0, ...props.one.timeline.map((event) => event.id)))
let begun = seen.value
const meanwhile = ref(false)
const alsoThere = computed(() => {
  const writing = others.value.filter((each) => each.writing).map((each) => each.name)
  const reading = others.value.filter((each) => !each.writing).map((each) => each.name)
  const say = (names: string[], what: string) =>
    names.length ? `${names.join(' and ')} ${names.length > 1 ? 'are' : 'is'} ${what}` : ''
  return [say(writing, 'writing an answer'), say(reading, 'reading this')].filter(Boolean).join(' · ')
})

let away = false
onBeforeUnmount(() => (away = true))
/** What could not be sent while somebody else is on the screen is said there, and kept for when they come back. */
function stays(id: number, called: string, said: string) {
  notices.say(`Your answer to ${called} was not sent: ${wrong.value} Its words are still there.`, {
    bad: true,
  })
  void sitDown(id, said, false).catch(() => undefined)
}

async function send(anyway = false) {
  if (work.isPending.value) return
  if (note.value) return keepNote()
  if (then.value === 'remind' && !until.value) {
    wrong.value = 'Choose when to be reminded.'
    return
  }
  wrong.value = ''
  // The screen may be about somebody else by the time this has gone.
  const [{ id, called }, said, byMail] = [props.one, text.value, way.value === 'mail']
  const along = takesFiles.value ? files.value : []
  const key = keyFor(id, said)
  const body = {
    text: said,
    key,
    then: then.value,
    until: until.value || null,
    outcome: 'answered' as const,
    way: way.value,
    kept: used.value,
    back_in: then.value === 'wait' && backIn.value ? backIn.value : null,
    files: along.map((file) => file.id),
    seen: anyway ? seen.value : begun,
  }
  try {
    const done = await sendOff(id, said, () => work.mutateAsync({ id, work: { do: 'answer', body } }))
    used.value = null
    files.value = []
    meanwhile.value = false
    begun = seen.value
    if (!done) return notices.say(ASIDE)
    // A mail waits ten seconds, so that it can be taken back; what stands in a conversation stands there at
    // once.
    const undo = async () => {
      // The server gives the words back as well, for a box that is another one by now.
      await work.mutateAsync({ id, work: { do: 'take-back', key } })
      text.value ||= said
      if (!files.value.length) files.value = along
      box.value?.focus()
    }
    notices.say(`Your answer is on its way to ${called}. ${ENDS[body.then]}`, byMail ? { undo } : {})
    if (body.then !== 'keep') emit('sent', id)
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This was not sent; your text is still here.'
    if (away) stays(id, called, said)
    if (problem instanceof Failure && problem.fields.seen) {
      meanwhile.value = true
      wrong.value = problem.fields.seen
      void queries.invalidateQueries({ queryKey: ['follow-up', props.one.id] })
    }
  }
}
</script>

<template>
  <form class="relative rounded-lg border border-ink-3 focus-within:border-petrol" @submit.prevent="send()">
    <p v-if="alsoThere" class="border-b border-line-2 px-3 py-1 text-brass" role="status">{{ alsoThere }}</p>
    <p
      v-if="proposed && !text && !note"
      class="flex flex-wrap items-baseline gap-x-2 border-b border-line-2 px-3 py-1 text-sm text-ink-2"
    >
      <span class="min-w-0 flex-1 truncate" dir="auto">They may be asking “{{ proposed.question }}”</span>
      <button type="button" class="btn-link" @click="((text = proposed.words), box?.focus())">
        Use its answer
      </button>
    </p>
    <label class="sr-only" for="answer">Answer to {{ one.called }}</label>
    <textarea
      id="answer"
      ref="box"
      v-model="text"
      rows="3"
      class="block w-full resize-y rounded-t-lg px-3 py-2"
      :placeholder="
        one.ways.length
          ? (HINTS[way] ?? 'Write an answer')
          : 'There is no way to answer them; write a note for yourselves'
      "
      :disabled="!can"
      :aria-invalid="!!wrong"
      aria-describedby="answer-wrong"
      @input="typing"
      @keydown.ctrl.enter.prevent="send()"
      @keydown.meta.enter.prevent="send()"
      @keydown.esc.stop="emit('left')"
      @keydown.exact="slash"
    />
    <p v-if="wrong" id="answer-wrong" class="px-3 pb-1 font-semibold text-rust" role="alert">
      {{ wrong }}
      <button v-if="meanwhile" type="button" class="btn ml-2" @click="send(true)">Send mine as well</button>
    </p>
    <ul v-if="files.length && takesFiles" class="flex flex-wrap gap-1.5 px-3 py-2" aria-label="Goes along">
      <li v-for="file in files" :key="file.id" class="chip">
        {{ file.name }}
        <button type="button" class="ml-0.5" :aria-label="`Leave out ${file.name}`" @click="without(file)">
          ✕
        </button>
      </li>
    </ul>
    <div class="flex flex-wrap items-center gap-2 border-t border-line-2 px-3 py-2">
      <template v-if="one.ways.length">
        <label for="way" class="sr-only">How</label>
        <select id="way" v-model="way" class="input w-auto!">
          <option v-for="each in one.ways" :key="each.key" :value="each.key">{{ each.words }}</option>
          <option value="note">as a note</option>
        </select>
      </template>
      <label v-if="!note" for="then" class="text-ink-2">and then</label>
      <select v-if="!note" id="then" v-model="then" class="input w-auto!" :disabled="!can">
        <option value="wait">wait for them</option>
        <option value="finish">finish</option>
        <option value="remind">remind me</option>
        <option value="keep">keep it for us</option>
      </select>
      <template v-if="then === 'wait' && !note">
        <label for="back-in" class="sr-only">If they say nothing</label>
        <select id="back-in" v-model.number="backIn" class="input w-auto!" :disabled="!can">
          <option :value="0">however long</option>
          <option v-for="days in [1, 2, 3, 5, 10]" :key="days" :value="days">
            at most {{ days }} open {{ days === 1 ? 'day' : 'days' }}
          </option>
        </select>
      </template>
      <PutOffMenu
        v-if="then === 'remind' && !note"
        :zone="zone"
        :now="now"
        :opening="one.next_opening"
        :label="said || 'When?'"
        @until="(at) => (until = at)"
      />
      <template v-if="takesFiles">
        <button type="button" class="btn" :disabled="taking || !can" @click="picker?.click()">
          {{ taking ? 'Taking it up …' : '+ File' }}
        </button>
        <input
          ref="picker"
          type="file"
          multiple
          class="sr-only"
          tabindex="-1"
          aria-label="Files that go along"
          @change="choose"
        />
      </template>
      <KeptAnswers :id="one.id" ref="kept" :written="text" @use="put" />
      <button class="btn btn-main ml-auto" :disabled="!can || taking || work.isPending.value">
        {{ note ? 'Keep' : 'Send' }}
        <kbd class="rounded border border-current px-1 text-xs max-md:hidden">Ctrl ↵</kbd>
      </button>
    </div>
  </form>
</template>
