<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { changeAddress, giveUpAddress, readAddresses } from '@/api/account'
import { useMe } from '@/api/me'
import TextField from '@/parts/TextField.vue'
import { useGuarded } from './again'
import PasswordAgain from './PasswordAgain.vue'

/** The address one signs in with; another takes its place once the mail to it is answered. */
const { data: me } = useMe()
const { data: addresses, refetch } = useQuery({ queryKey: ['addresses'], queryFn: readAddresses })
const { error, fields, busy, waiting, guarded, again, never } = useGuarded()
const email = ref('')
const coming = computed(() => addresses.value?.find((one) => !one.verified)?.email)
const change = () =>
  guarded(async () => {
    await changeAddress(email.value.trim())
    email.value = ''
    await refetch()
  })
const stay = (address: string) =>
  guarded(async () => {
    await giveUpAddress(address)
    await refetch()
  })
</script>

<template>
  <article id="address" class="sheet p-5" aria-labelledby="address-title">
    <h2 id="address-title" class="mb-1">Your address</h2>
    <p class="text-ink-2">
      You sign in with <strong class="text-ink">{{ me?.email }}</strong>.
    </p>
    <div v-if="coming" class="mt-3 flex flex-wrap items-center gap-3 rounded-md bg-petrol-wash px-3 py-2">
      <span class="min-w-0 flex-1"
        ><strong>{{ coming }}</strong> takes its place once you have clicked the link in the mail that went
        there.</span
      >
      <button type="button" class="btn" @click="stay(coming)">Keep the old one</button>
    </div>
    <form class="mt-3 flex flex-wrap items-start gap-3" novalidate @submit.prevent="change">
      <TextField
        v-model="email"
        class="w-80 max-w-full"
        label="Another address"
        type="email"
        autocomplete="email"
        :error="waiting ? undefined : (fields.email ?? error?.message)"
        hint="A mail goes there; until its link is clicked, nothing changes."
      />
      <button class="btn sm:mt-[1.55rem]" :disabled="busy || !email.trim()">Change it</button>
    </form>
    <PasswordAgain
      v-if="waiting"
      :error="fields.password ?? error?.message"
      :busy="busy"
      @said="again"
      @cancel="never"
    />
  </article>
</template>
