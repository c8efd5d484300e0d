<script setup lang="ts">
import { ref, watch } from 'vue'
import { useChangeBusiness } from '@/api/me'
import { useNotices } from '@/lib/notices'
import { useForm } from '@/parts/form'

const props = defineProps<{ minutes: number | null; nowSaid: string }>()
const change = useChangeBusiness()
const notices = useNotices()
const none = ref(false)
const hours = ref('2')
const { error, run } = useForm()
/** What was asked for last: Enter is told as a change of the field as well. */
let asked: number | null = null
watch(
  () => props.minutes,
  (minutes) => {
    asked = minutes
    none.value = minutes === null
    if (minutes !== null) hours.value = String(minutes / 60)
  },
  { immediate: true },
)
/** Kept at once, as the week is; one step back is at hand. */
async function save() {
  const was = asked
  const minutes = Math.round(Number(hours.value.replace(',', '.')) * 60)
  if (!none.value && !(minutes >= 1)) throw new Error('Write how many open hours, like 2 or 0.5.')
  const keep = (promise_minutes: number | null) => change.mutateAsync({ promise_minutes })
  const wanted = none.value ? null : minutes
  if (wanted === was) return
  asked = wanted
  await keep(wanted).catch((problem: unknown) => {
    asked = was
    throw problem
  })
  notices.say('Kept. New answers are promised by it.', { about: 'promise', undo: () => keep(was) })
}
</script>

<template>
  <form class="sheet grid gap-2 p-5" aria-labelledby="promise" novalidate @submit.prevent="run(save)">
    <h2 id="promise">The promise</h2>
    <p class="flex items-center gap-2">
      <label for="promise-hours">We answer within</label
      ><input
        id="promise-hours"
        v-model="hours"
        class="input w-16!"
        inputmode="decimal"
        :disabled="none"
        :aria-invalid="!!error"
        @change="run(save)"
      />
      open hours
    </p>
    <label class="flex items-center gap-2"
      ><input v-model="none" type="checkbox" @change="run(save)" /> Promise no time: “as soon as we
      can”</label
    >
    <p v-if="error" class="font-semibold text-rust" role="alert">{{ error.message }}</p>
    <p class="text-ink-2">
      Somebody who asks now is answered <strong class="text-ink">{{ nowSaid }}</strong>.
    </p>
  </form>
</template>
