<script setup lang="ts">
import { putBackReply, saveReply, type Reply, type ReplyCell } from '@/api/hours'
import { copyOf, useDraft } from '@/lib/draft'
import { useForm } from '@/parts/form'
import ClashBox from '@/parts/ClashBox.vue'
import RichBox from '@/parts/fields/RichBox.vue'
import { runsToHtml } from '@/parts/fields/runs'
import { useNotices } from '@/lib/notices'
import { REPLY_SLOTS } from './words'

/** One cell of the table: what is said there, and what its button says. */
const props = defineProps<{
  cell: ReplyCell
  situation: string
  language: string
  name: string
  hides: boolean
}>()
const emit = defineEmits<{ changed: []; close: [] }>()
const notices = useNotices()
const { error, fields, busy, run, clear } = useForm()
const { draft: reply, base, afresh } = useDraft(() => props.cell.reply)
const about = `reply ${props.situation} ${props.cell.column} ${props.language}`
const { situation, language } = props
const { column } = props.cell
/** What goes back to what stood there before: of what others have changed since, nothing is taken back. */
function goingBack(now?: Reply) {
  const { own, reply: was } = copyOf(props.cell)
  return () =>
    own || !now
      ? saveReply(situation, language, column, { reply: was, based_on: now })
      : putBackReply(situation, column, language)
}
/** Saves what was made from `base`; what others have changed since stays. */
async function keep(all_the_same = false) {
  const sent = copyOf(reply.value)
  const undo = goingBack(sent)
  await saveReply(situation, language, column, { reply: sent, based_on: base.value, all_the_same })
  emit('changed')
  emit('close')
  notices.say('Saved. Visitors are told it within a second.', { about, undo })
}
/** What stands there, in place of what is not saved. */
function take() {
  afresh()
  clear()
  emit('changed')
}
async function back() {
  const undo = goingBack()
  await putBackReply(situation, column, language)
  emit('changed')
  emit('close')
  notices.say('It inherits its words again.', { about, undo })
}
</script>

<template>
  <form
    class="sheet grid gap-2 p-4"
    novalidate
    :aria-label="`What is said: ${name}`"
    @submit.prevent="run(() => keep())"
  >
    <h2>{{ name }}</h2>
    <label class="flex items-center gap-1.5"
      ><input v-model="reply.hidden" type="checkbox" /> {{ hides ? 'hidden while so' : 'say nothing' }}</label
    >
    <template v-if="!reply.hidden">
      <label class="grid text-sm text-ink-2"
        >What the button says<input
          v-model="reply.button"
          class="input"
          maxlength="60"
          placeholder="as it is called"
      /></label>
      <p class="text-sm text-ink-2">Title</p>
      <RichBox
        label="Title"
        plain
        :html="runsToHtml(reply.title)"
        :slots="REPLY_SLOTS"
        @runs="reply.title = $event"
      />
      <p class="text-sm text-ink-2">Text</p>
      <RichBox
        label="Text"
        plain
        :html="runsToHtml(reply.text)"
        :slots="REPLY_SLOTS"
        @runs="reply.text = $event"
      />
      <label class="flex items-center gap-1.5"
        ><input
          type="checkbox"
          :checked="reply.tone === 'quiet'"
          @change="reply.tone = ($event.target as HTMLInputElement).checked ? 'quiet' : 'as-open'"
        />
        quietly, not in the look of being open</label
      >
    </template>
    <ClashBox :error="error" @mine="run(() => keep(true))" @theirs="take">
      <p v-if="error" class="font-semibold text-rust" role="alert">
        {{ Object.values(fields)[0] ?? error.message }}
      </p>
    </ClashBox>
    <span class="flex flex-wrap gap-2">
      <button class="btn btn-main" :disabled="busy">Save</button>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
      <button v-if="cell.own" type="button" class="btn" @click="run(back)">
        {{ cell.column ? 'As everywhere' : 'The usual words' }}
      </button>
    </span>
  </form>
</template>
