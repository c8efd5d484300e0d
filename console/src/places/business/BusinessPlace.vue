<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { askSender, useChangeBusiness, useMay, useMe, usePlaces } from '@/api/me'
import { useAddSite, useSites } from '@/api/sites'
import { useDraft } from '@/lib/draft'
import { useForm } from '@/parts/form'
import { LANGUAGES } from '@/lib/languages'
import { useNotices } from '@/lib/notices'
import { reach } from '@/lib/reach'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import GiveRulesCard from './GiveRulesCard.vue'
import CopiesCard from './CopiesCard.vue'
import LogCard from './LogCard.vue'
import MailInCard from './MailInCard.vue'
import PeopleCard from './PeopleCard.vue'
import RoomCard from './RoomCard.vue'
import QuestionsCard from './QuestionsCard.vue'
import SiteCard from './SiteCard.vue'
import { vTakesFocus } from '@/lib/focus'

const { data: me } = useMe()
const { data: sites, error: unread, refetch } = useSites()
const may = useMay()
const change = useChangeBusiness()
const add = useAddSite()
const notices = useNotices()
const about = useForm()
const adding = useForm()
const { draft, base, afresh } = useDraft(() => {
  const { name = '', mail_address = '', region = '', language = '' } = me.value?.business ?? {}
  return { name, mail_address, region, language }
})
const { data: places } = usePlaces('')
const host = ref('')
const open = ref(false)
const PARTS = computed(() => ({
  sites: 'Sites and the line for them',
  'site-rules': 'What holds for a whole site',
  house: 'House style',
  questions: 'Questions & answers',
  people: 'People',
  give: 'Whose new work is',
  ...(may('business')
    ? { 'mail-in': 'Answers by mail', copy: 'A copy of everything', room: 'Room', log: 'Who did what' }
    : {}),
}))
const route = useRoute()
/** To the part that the address names, once what it stands in is there. */
watch(
  () => [route.hash, sites.value?.length] as const,
  async ([hash]) => {
    await nextTick()
    const part = hash && document.getElementById(hash.slice(1))
    if (part) reach(part)
  },
  { immediate: true },
)
/** Saves what was changed here; the rest is as somebody else may have made it meanwhile. */
async function save() {
  const { name, mail_address, region, language } = draft.value
  await change.mutateAsync({
    ...(name !== base.value.name && { name }),
    ...(mail_address !== base.value.mail_address && { mail_address }),
    ...(region !== base.value.region && { region }),
    ...(language !== base.value.language && { language }),
  })
  await nextTick()
  afresh()
  notices.say('Saved.')
}
async function again() {
  await askSender()
  notices.say(`On its way to ${me.value?.business?.mail_address}.`)
}
async function addSite() {
  await add.mutateAsync({ name: '', hosts: [host.value] })
  host.value = ''
  open.value = false
}
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <div class="mb-4 flex flex-wrap items-baseline gap-x-5 gap-y-1">
      <h1>Business</h1>
      <nav class="flex flex-wrap gap-x-4" aria-label="Parts of this page">
        <RouterLink v-for="(words, id) in PARTS" :key="id" :to="`#${id}`" class="btn-link">{{
          words
        }}</RouterLink>
      </nav>
    </div>
    <div class="grid max-w-6xl grid-cols-1 items-start gap-5 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <section id="sites" class="grid grid-cols-1 gap-4" aria-label="Sites">
        <ErrorBox :error="unread" :again="() => refetch()" />
        <div v-if="!sites && !unread" class="sheet h-56 opacity-60" aria-busy="true" />
        <p v-if="sites && !sites.length" class="sheet p-6">
          There is no site yet. Add yours, and you get the one line to paste into it.
        </p>
        <SiteCard v-for="site in sites" :key="site.id" :site="site" />
        <form v-if="open" v-takes-focus class="sheet grid gap-3 p-5" @submit.prevent="adding.run(addSite)">
          <TextField
            v-model="host"
            label="Address of the site"
            :error="adding.fields.value['hosts.0'] ?? adding.fields.value.hosts"
            hint="Any spelling will do."
          />
          <ErrorBox v-if="!Object.keys(adding.fields.value).length" :error="adding.error.value" />
          <div class="flex gap-2">
            <button class="btn btn-main" :disabled="adding.busy.value">Add it</button
            ><button type="button" class="btn" @click="open = false">Cancel</button>
          </div>
        </form>
        <button v-else type="button" class="btn justify-self-start" @click="open = true">
          + Another site
        </button>
      </section>
      <div class="grid grid-cols-1 gap-5 lg:order-last">
        <QuestionsCard />
        <PeopleCard />
        <GiveRulesCard />
        <MailInCard v-if="may('business')" />
        <CopiesCard v-if="may('business')" />
        <RoomCard v-if="may('business')" />
        <LogCard v-if="may('business')" />
      </div>
      <form
        id="about-form"
        class="sheet grid gap-3 p-5"
        aria-labelledby="about"
        novalidate
        @submit.prevent="about.run(save)"
      >
        <h2 id="about">The business</h2>
        <TextField v-model="draft.name" label="Name" :error="about.fields.value.name" />
        <TextField
          v-model="draft.mail_address"
          label="Mail is sent from"
          type="email"
          :error="about.fields.value.mail_address"
          hint="Visitors see it, and answer to it."
        />
        <p v-if="me?.business && !me.business.mail_confirmed" class="rounded-md bg-brass-tint px-3 py-2">
          <strong>{{ me.business.mail_address }}</strong> has not said yet that mail may come from it: look
          for our mail there. Until then your mail comes from an address of ours, in your name, and answers go
          to you.
          <button type="button" class="btn-link ml-1 font-semibold" @click="about.run(again)">
            Send ours again
          </button>
        </p>
        <ErrorBox v-if="!Object.keys(about.fields.value).length" :error="about.error.value" />
        <div>
          <label for="business-region" class="mb-1 block font-semibold">Its country</label>
          <select id="business-region" v-model="draft.region" class="input">
            <option v-for="one in places?.regions" :key="one.code" :value="one.code">{{ one.name }}</option>
          </select>
          <p
            class="mt-1 text-sm"
            :class="about.fields.value.region ? 'font-semibold text-rust' : 'text-ink-2'"
          >
            {{
              about.fields.value.region ?? 'Clocks, dates, numbers and prices are written as they are there.'
            }}
          </p>
        </div>
        <div>
          <label for="business-language" class="mb-1 block font-semibold"
            >What visitors are spoken to in</label
          >
          <select id="business-language" v-model="draft.language" class="input">
            <option v-for="(words, code) in LANGUAGES" :key="code" :value="code">{{ words }}</option>
          </select>
          <p class="mt-1 text-sm text-ink-2">A site or a touchpoint may say another.</p>
        </div>
        <p class="text-sm text-ink-2">Times are told in {{ me?.business?.timezone }}.</p>
        <button class="btn btn-main justify-self-start" :disabled="about.busy.value">Save</button>
      </form>
    </div>
  </div>
</template>
