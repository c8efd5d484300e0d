<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { useFoundBusiness } from '@/api/me'
import { useAddSite } from '@/api/sites'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import AccountSheet from './AccountSheet.vue'
import { useForm } from './form'

const name = ref('')
const host = ref('')
const timezone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone || 'Europe/London')
const zones = Intl.supportedValuesOf('timeZone')
const names = new Intl.DisplayNames('en', { type: 'region', fallback: 'none' })
const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ']
const regions = letters
  .flatMap((one) => letters.map((other) => one + other))
  .flatMap((code) => (names.of(code) ? [{ code, name: names.of(code) ?? code }] : []))
  .sort((a, b) => a.name.localeCompare(b.name))
const region = ref(new Intl.Locale(navigator.language).maximize().region ?? 'GB')
const found = useFoundBusiness()
const addSite = useAddSite()
const router = useRouter()
const { error, fields, busy, run } = useForm()
const founded = ref(false)

async function go() {
  // The business may be there already if only the site's address was wrong.
  if (!founded.value) await found.mutateAsync({ name: name.value, timezone: timezone.value, region: region.value })
  founded.value = true
  await addSite.mutateAsync({ name: '', hosts: [host.value] })
  await router.push('/touchpoints?new')
}
</script>

<template>
  <AccountSheet title="Your business">
    <form class="grid gap-3" novalidate @submit.prevent="run(go)">
      <ErrorBox v-if="!Object.keys(fields).length" :error="error" />
      <TextField v-model="name" label="What is it called?" :error="fields.name" autocomplete="organization" />
      <TextField
        v-model="host"
        label="Its web site"
        :error="fields['hosts.0'] ?? fields.hosts"
        hint="Like otterwick.example; any spelling will do."
      />
      <div>
        <label for="zone" class="mb-1 block font-semibold">Its time zone</label>
        <select id="zone" v-model="timezone" class="input">
          <option v-for="zone in zones" :key="zone">{{ zone }}</option>
        </select>
        <p v-if="fields.timezone" class="mt-1 font-semibold text-rust">{{ fields.timezone }}</p>
      </div>
      <div>
        <label for="region" class="mb-1 block font-semibold">Its country</label>
        <select id="region" v-model="region" class="input">
          <option v-for="one in regions" :key="one.code" :value="one.code">{{ one.name }}</option>
        </select>
        <p class="mt-1 text-sm" :class="fields.region ? 'font-semibold text-rust' : 'text-ink-2'">
          {{ fields.region ?? 'Phone numbers are read with it.' }}
        </p>
      </div>
      <button class="btn btn-main justify-center" :disabled="busy">Go on to the first touchpoint</button>
    </form>
  </AccountSheet>
</template>
