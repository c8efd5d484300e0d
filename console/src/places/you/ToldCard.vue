<script setup lang="ts">
import { computed, ref } from 'vue'
import { useTold, type Told } from '@/api/follow-ups'
import { useNotices } from '@/lib/notices'
import { chime } from '@/parts/arrivals'
import { useForm } from '@/parts/form'

/** What one is told, by mail and in the browser; each choice is kept at once. */
const { told, change } = useTold()
const notices = useNotices()
const { error, fields, run } = useForm()
const BEFORE = [15, 30, 60, 120, 240]
const DAYS = [1, 2, 3, 5, 10]
const put = (piece: Partial<Told>) =>
  run(async () => {
    if (!told.value) return
    await change({ ...told.value, ...piece })
    notices.say('Kept.')
  })
const number = (event: Event) => Number((event.target as HTMLSelectElement).value) || null
const on = (event: Event) => (event.target as HTMLInputElement).checked
const can = 'Notification' in window
const allowed = ref(can ? Notification.permission : 'denied')
const blocked = computed(() => told.value?.notify && allowed.value === 'denied')
async function notify(event: Event) {
  const wanted = on(event)
  if (wanted && can && allowed.value === 'default') allowed.value = await Notification.requestPermission()
  await put({ notify: wanted })
}
async function sound(event: Event) {
  const wanted = on(event)
  if (wanted) chime()
  await put({ sound: wanted })
}
</script>

<template>
  <article v-if="told" id="told" class="sheet p-5" aria-labelledby="told-title">
    <h2 id="told-title" class="mb-1">What you are told</h2>
    <p class="mb-3 text-ink-2">
      Of what is yours, and what is everybody’s, each once; about what is due only while you are open.
    </p>
    <div class="grid gap-2.5">
      <p class="flex flex-wrap items-center gap-2">
        <label for="told-before">By mail, before something is due</label>
        <select
          id="told-before"
          class="input w-auto!"
          :value="told.before_minutes ?? ''"
          @change="put({ before_minutes: number($event) })"
        >
          <option value="">not</option>
          <option v-for="one in [...new Set([...BEFORE, told.before_minutes ?? 15])]" :key="one" :value="one">
            {{ one < 60 ? `${one} minutes` : `${one / 60} ${one === 60 ? 'hour' : 'hours'}` }} of open time
            before
          </option>
        </select>
      </p>
      <label class="flex items-center gap-2"
        ><input type="checkbox" :checked="told.when_late" @change="put({ when_late: on($event) })" /> By mail,
        when something is late</label
      >
      <label class="flex items-center gap-2"
        ><input type="checkbox" :checked="told.morning" @change="put({ morning: on($event) })" /> By mail at
        opening: the day’s list</label
      >
      <label class="flex items-center gap-2"
        ><input type="checkbox" :checked="told.touchpoints" @change="put({ touchpoints: on($event) })" /> By
        mail, at any hour, what comes through touchpoints that are to tell you</label
      >
      <p class="flex flex-wrap items-center gap-2">
        <label for="told-untouched">On the day line, what nobody has touched for</label>
        <select
          id="told-untouched"
          class="input w-auto!"
          :value="told.untouched_days ?? ''"
          @change="put({ untouched_days: number($event) })"
        >
          <option v-for="one in [...new Set([...DAYS, told.untouched_days ?? 1])]" :key="one" :value="one">
            {{ one }} open {{ one === 1 ? 'day' : 'days' }}
          </option>
          <option value="">however long: say nothing</option>
        </select>
      </p>
      <label class="flex items-center gap-2"
        ><input type="checkbox" :checked="told.notify" :disabled="!can" @change="notify" /> In this browser,
        when something comes in</label
      >
      <p v-if="blocked" class="text-sm text-rust">
        This browser does not let Intavo tell you anything; allow it in the browser’s settings of this page.
      </p>
      <label class="flex items-center gap-2"
        ><input type="checkbox" :checked="told.sound" @change="sound" /> With a sound</label
      >
    </div>
    <p v-if="error" class="mt-2 font-semibold text-rust" role="alert">
      {{ Object.values(fields)[0] ?? error.message }}
    </p>
  </article>
</template>
