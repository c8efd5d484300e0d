<script setup lang="ts">
import { computed, ref } from 'vue'
import { useCall } from '@/api/calls'
import { useClock } from '@/lib/clock'
import { useNotices } from '@/lib/notices'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/parts/form'

/** The call that somebody booked: moved, or cancelled, by us. */
const props = defineProps<{ id: number; called: string }>()
const { call, move, cancel } = useCall(computed(() => props.id))
const { zone, now } = useClock()
const notices = useNotices()
const form = useForm()
const open = ref(false)
const time = ref('')
async function moved() {
  await move(time.value)
  open.value = false
  notices.say(`The call with ${props.called} is moved. They are told by mail, where they left an address.`)
}
async function cancelled() {
  await cancel()
  notices.say(
    `The call with ${props.called} is cancelled. They are told by mail, where they left an address.`,
  )
}
</script>

<template>
  <div v-if="call?.when" class="mb-3 rounded-md bg-petrol-tint px-3 py-2">
    <p class="flex flex-wrap items-center gap-2">
      <span class="min-w-0 flex-1"
        >Call booked for <strong>{{ saidTime(call.when, now, zone) }}</strong></span
      >
      <button type="button" class="btn" :aria-expanded="open" @click="open = !open">Move or cancel …</button>
    </p>
    <form v-if="open" class="mt-2 flex flex-wrap items-center gap-2" @submit.prevent="form.run(moved)">
      <label class="sr-only" for="call-time">Another time</label>
      <select id="call-time" v-model="time" class="input w-auto!" required>
        <option value="" disabled>
          {{ call.times.length ? 'Another time …' : 'No other time is free' }}
        </option>
        <option v-for="one in call.times" :key="one.value" :value="one.value">{{ one.words }}</option>
      </select>
      <button class="btn btn-main" :disabled="!time || form.busy.value">Move it</button>
      <button type="button" class="btn text-rust" :disabled="form.busy.value" @click="form.run(cancelled)">
        Cancel the call
      </button>
      <ErrorBox :error="form.error.value" />
    </form>
  </div>
</template>
