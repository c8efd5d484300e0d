<script setup lang="ts">
import { ref } from 'vue'
import { dropHoursAddress, hoursOut, makeHoursAddress } from '@/api/hours'
import type { Schemas } from '@/api/client'
import { useForm } from '@/parts/form'
import { useNotices } from '@/lib/notices'

/** The hours for others: an address that calendars follow, and what can be pasted into a page. */
const props = defineProps<{ id: number }>()
const out = ref<Schemas['GivenOutOut'] | null>(null)
const notices = useNotices()
const { error, run } = useForm()
const show = () => run(async () => void (out.value = await hoursOut(props.id)))
const make = () => run(async () => void (out.value = await makeHoursAddress(props.id)))
const drop = () => run(async () => void (out.value = await dropHoursAddress(props.id)))
async function copy(text: string) {
  await navigator.clipboard.writeText(text)
  notices.say('Copied.')
}
</script>

<template>
  <details class="mt-3" @toggle="!out && show()">
    <summary class="font-semibold text-petrol">For calendars and your web site</summary>
    <div v-if="out" class="mt-2 grid gap-2">
      <p v-if="out.address" class="flex flex-wrap items-center gap-2">
        <code class="break-all">{{ out.address }}</code>
        <button type="button" class="btn" @click="copy(out.address)">Copy the address</button>
        <button type="button" class="btn" @click="make">Another address</button>
        <button type="button" class="btn" @click="drop">Take it away</button>
      </p>
      <p v-else class="flex flex-wrap items-center gap-2">
        <span class="text-ink-2">Calendars can follow these hours at a secret address.</span>
        <button type="button" class="btn" @click="make">Make the address</button>
      </p>
      <p class="flex flex-wrap items-center gap-2">
        <span class="text-ink-2">Search sites read your hours from JSON-LD in your page.</span>
        <button type="button" class="btn" @click="copy(out.json_ld)">Copy the JSON-LD</button>
      </p>
    </div>
    <p v-if="error" class="font-semibold text-rust" role="alert">{{ error.message }}</p>
  </details>
</template>
