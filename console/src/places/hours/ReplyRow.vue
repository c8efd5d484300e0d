<script setup lang="ts">
import { ref } from 'vue'
import { putBackReply, saveReply, type Told } from '@/api/hours'
import { useForm } from '@/places/account/form'
import RichBox from '@/places/touchpoints/fields/RichBox.vue'
import { runsToHtml, type Run } from '@/places/touchpoints/fields/runs'
import { useNotices } from '@/lib/notices'

/** What visitors are told in one situation: as it will read, and how to change it. */
const props = defineProps<{ told: Told; name: string }>()
const emit = defineEmits<{ changed: [] }>()
const SLOTS = {
  next_opening: 'when we open',
  closing_time: 'when we close',
  promise: 'when we answer',
  day_name: 'name of the day',
}
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const open = ref(false)
const copied = () => JSON.parse(JSON.stringify(props.told.reply)) as Told['reply']
const reply = ref(copied())
function begin() {
  reply.value = copied()
  open.value = true
}
async function keep() {
  await saveReply(props.told.situation, reply.value)
  open.value = false
  emit('changed')
  notices.say('Saved. Visitors are told it within a second.')
}
async function back() {
  await putBackReply(props.told.situation)
  open.value = false
  emit('changed')
}
</script>

<template>
  <div class="border-l-4 px-3 py-1.5" :class="told.in_effect ? 'border-petrol bg-petrol-wash' : 'border-transparent'">
    <dt class="flex items-baseline gap-2 font-semibold">
      {{ name }} <span v-if="told.in_effect" class="chip">now</span>
      <button v-if="!open" type="button" class="btn-link ml-auto text-sm font-normal" :aria-label="`Change: ${name}`" @click="begin">
        Change
      </button>
    </dt>
    <dd v-if="!open" class="text-ink-2">
      <template v-if="told.reply.hidden">Nothing is said.</template>
      <template v-else
        ><strong class="block font-semibold text-ink">{{ told.title }}</strong
        >{{ told.text }}</template
      >
      <span v-if="!told.comes" class="block text-sm">None is in your hours, so no day can be named yet.</span>
    </dd>
    <dd v-else>
      <form class="mt-1 grid gap-2" novalidate :aria-label="`What is said: ${name}`" @submit.prevent="run(keep)">
        <label class="flex items-center gap-1.5"><input v-model="reply.hidden" type="checkbox" /> say nothing</label>
        <template v-if="!reply.hidden">
          <p class="text-sm text-ink-2">Title</p>
          <RichBox label="Title" plain :html="runsToHtml(reply.title)" :slots="SLOTS" @runs="reply.title = $event as Run[]" />
          <p class="text-sm text-ink-2">Text</p>
          <RichBox label="Words" plain :html="runsToHtml(reply.text)" :slots="SLOTS" @runs="reply.text = $event as Run[]" />
        </template>
        <p v-if="error" class="font-semibold text-rust" role="alert">{{ Object.values(fields)[0] ?? error.message }}</p>
        <span class="flex flex-wrap gap-2">
          <button class="btn btn-main" :disabled="busy">Save</button>
          <button type="button" class="btn" @click="open = false">Cancel</button>
          <button v-if="told.own" type="button" class="btn" @click="run(back)">The usual words</button>
        </span>
      </form>
    </dd>
  </div>
</template>
