<script setup lang="ts">
import { ref, watch } from 'vue'
import { useChangeBusiness, useMe } from '@/api/me'
import { useNotices } from '@/lib/notices'
import { useForm } from '@/places/account/form'

const props = defineProps<{ minutes: number | null; nowSaid: string }>()
const { data: me } = useMe()
const change = useChangeBusiness()
const notices = useNotices()
const none = ref(false)
const hours = ref('2')
const { error, run } = useForm()
watch(
  () => props.minutes,
  (minutes) => {
    none.value = minutes === null
    if (minutes !== null) hours.value = String(minutes / 60)
  },
  { immediate: true },
)
async function save() {
  const minutes = Math.round(Number(hours.value.replace(',', '.')) * 60)
  if (!none.value && !(minutes >= 1)) throw new Error('Write how many open hours, like 2 or 0.5.')
  const business = me.value?.business
  if (!business) return
  const { name, mail_address } = business
  await change.mutateAsync({ name, mail_address, promise_minutes: none.value ? null : minutes })
  notices.say('Saved. New answers are promised by it.')
}
</script>

<template>
  <form class="sheet grid gap-2 p-5" aria-labelledby="promise" novalidate @submit.prevent="run(save)">
    <h2 id="promise">The promise</h2>
    <p class="flex items-center gap-2">
      <label for="promise-hours">We answer within</label
      ><input id="promise-hours" v-model="hours" class="input w-16!" inputmode="decimal" :disabled="none" :aria-invalid="!!error" /> open
      hours
    </p>
    <label class="flex items-center gap-2"><input v-model="none" type="checkbox" /> Promise no time: “as soon as we can”</label>
    <p v-if="error" class="font-semibold text-rust" role="alert">{{ error.message }}</p>
    <p class="text-ink-2">
      Somebody who asks now is answered <strong class="text-ink">{{ nowSaid }}</strong>.
    </p>
    <button class="btn justify-self-start">Save the promise</button>
  </form>
</template>
