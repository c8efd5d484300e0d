<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { startAnew } from '@/api/account'
import { joinBusiness, useFoundBusiness, useMe, usePlaces } from '@/api/me'
import { useAddSite } from '@/api/sites'
import { LANGUAGES } from '@/lib/languages'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import AccountSheet from './AccountSheet.vue'
import { useForm } from '@/parts/form'

const name = ref('')
const host = ref('')
const yours = ref('')
const timezone = ref('')
const region = ref('')
const language = ref('en')
const { data: places } = usePlaces(Intl.DateTimeFormat().resolvedOptions().timeZone || '')
// The country and its currency follow the zone, until another one is chosen.
watch(
  places,
  (known) => {
    if (known && !timezone.value) timezone.value = known.guess.key
  },
  { immediate: true },
)
watch(
  timezone,
  (key) => (region.value = places.value?.zones.find((one) => one.key === key)?.region ?? region.value),
)
const country = computed(() => places.value?.regions.find((one) => one.code === region.value))
const currency = computed(() => country.value?.currency ?? '')
watch(country, (known) => (language.value = known && known.language in LANGUAGES ? known.language : 'en'))
const { data: me } = useMe()
watch(me, (known) => (yours.value ||= known?.name ?? ''), { immediate: true })
const found = useFoundBusiness()
const addSite = useAddSite()
const router = useRouter()
const { error, fields, busy, run } = useForm()
const founded = ref(false)

async function go() {
  // The business may be there already if only the site's address was wrong.
  if (!founded.value)
    await found.mutateAsync({
      name: name.value,
      timezone: timezone.value,
      region: region.value,
      language: language.value,
      your_name: yours.value,
    })
  founded.value = true
  await addSite.mutateAsync({ name: '', hosts: [host.value] })
  await router.push('/touchpoints?new')
}
</script>

<template>
  <AccountSheet title="Your business">
    <ul v-if="me?.invitations.length" class="mb-5 grid gap-2">
      <li v-for="one in me.invitations" :key="one.id" class="rounded-md bg-petrol-wash p-3">
        <strong>{{ one.business }}</strong> invites you, as {{ one.role }}.
        <button
          type="button"
          class="btn btn-main mt-2"
          @click="run(() => joinBusiness(one.id).then(() => startAnew('/follow-up')))"
        >
          Join {{ one.business }}
        </button>
      </li>
    </ul>
    <p v-if="me?.invitations.length" class="mb-3 text-ink-2">Or found a business of your own:</p>
    <form class="grid gap-3" novalidate @submit.prevent="run(go)">
      <ErrorBox v-if="!Object.keys(fields).length" :error="error" />
      <TextField v-model="name" label="What is it called?" :error="fields.name" autocomplete="organization" />
      <TextField
        v-model="host"
        label="Its web site"
        :error="fields['hosts.0'] ?? fields.hosts"
        hint="Like your-business.example; any spelling will do."
      />
      <TextField
        v-model="yours"
        label="Your name"
        :error="fields.your_name"
        autocomplete="name"
        hint="It stands under what you answer. It can wait."
      />
      <div>
        <label for="zone" class="mb-1 block font-semibold">Where it is: its times go by it</label>
        <select id="zone" v-model="timezone" class="input">
          <option v-for="one in places?.zones" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
        <p v-if="fields.timezone" class="mt-1 font-semibold text-rust">{{ fields.timezone }}</p>
      </div>
      <div>
        <label for="region" class="mb-1 block font-semibold">Its country</label>
        <select id="region" v-model="region" class="input">
          <option v-for="one in places?.regions" :key="one.code" :value="one.code">{{ one.name }}</option>
        </select>
        <p class="mt-1 text-sm" :class="fields.region ? 'font-semibold text-rust' : 'text-ink-2'">
          {{ fields.region ?? `Phone numbers are read with it, and prices are in ${currency}.` }}
        </p>
      </div>
      <div>
        <label for="language" class="mb-1 block font-semibold">What your visitors are spoken to in</label>
        <select id="language" v-model="language" class="input">
          <option v-for="(words, code) in LANGUAGES" :key="code" :value="code">{{ words }}</option>
        </select>
        <p v-if="fields.language" class="mt-1 font-semibold text-rust">{{ fields.language }}</p>
      </div>
      <button class="btn btn-main justify-center" :disabled="busy || !timezone">
        Go on to the first touchpoint
      </button>
    </form>
  </AccountSheet>
</template>
