<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { instructionsText, sendInstructions, useChangeSite, useRefused, type Site } from '@/api/sites'
import { useClock } from '@/lib/clock'
import { LANGUAGES } from '@/lib/languages'
import { copyOf, useDraft } from '@/lib/draft'
import { useNotices } from '@/lib/notices'
import { ago, saidCount } from '@/lib/time'
import ClashBox from '@/parts/ClashBox.vue'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/parts/form'
import HouseStyle from './HouseStyle.vue'
import SiteRules from './SiteRules.vue'

const props = defineProps<{ site: Site }>()
const { now } = useClock()
const refused = useRefused(() => props.site.id).data
/** What one client invents may be many: the first few, which several met, and the others on request. */
const FEW = 3
const strangers = computed(() => props.site.strangers.slice(0, FEW))
const others = computed(() => props.site.strangers.slice(FEW))
const { copy, copied } = useClipboard({ legacy: true })
const change = useChangeSite()
const notices = useNotices()
const { error, fields, busy, run, clear } = useForm()
const { draft, base, afresh, kept } = useDraft(() => {
  const { name, hosts, language } = props.site
  return { name, hosts: [...hosts, ''], language }
})
function typed(at: number) {
  const { hosts } = draft.value
  if (at === hosts.length - 1 && hosts[at]) hosts.push('')
}
const mailing = useForm()
const keeper = ref('')
async function mailIt() {
  await sendInstructions(props.site.id, keeper.value)
  notices.say(`On its way to ${keeper.value.trim()}.`)
  keeper.value = ''
}
async function copyIt() {
  await copy(await instructionsText(props.site.id))
  notices.say('Copied. Paste it into a mail of your own.')
}
async function addHost(host: string) {
  const { id, name, hosts, language } = props.site
  const based_on = { name, hosts, language }
  await change.mutateAsync({ id, ...based_on, hosts: [...hosts, host], based_on, all_the_same: false })
  notices.say(`${host} is on the list.`)
}
/** Saves what was made from `base`; what others have changed since stays. */
async function save(all_the_same = false) {
  const sent = copyOf(draft.value)
  await change.mutateAsync({ id: props.site.id, ...sent, based_on: base.value, all_the_same })
  await nextTick()
  kept(sent)
  notices.say('Saved. Visitors get it within a second.')
}
</script>

<template>
  <article class="sheet p-5">
    <header class="mb-3 flex flex-wrap items-baseline justify-between gap-x-4">
      <h2>{{ site.name }}</h2>
      <p v-if="site.seen" class="text-moss">
        <span aria-hidden="true">●</span> seen {{ ago(site.seen.at, now.toISOString()) }} on
        <strong>{{ site.seen.path }}</strong>, from
        {{ site.seen.host }}
      </p>
      <p v-else class="text-brass"><span aria-hidden="true">○</span> not seen yet</p>
    </header>
    <p v-for="stranger in strangers" :key="stranger" class="mb-2 rounded-md bg-brass-tint px-3 py-2">
      Seen on <strong>{{ stranger }}</strong>, which is not on the list: nothing shows there.
      <button type="button" class="btn-link ml-1 font-semibold" @click="run(() => addHost(stranger))">
        Add {{ stranger }}
      </button>
    </p>
    <details v-if="others.length" class="mb-2">
      <summary class="cursor-pointer text-ink-2">
        and on {{ others.length }} more {{ others.length === 1 ? 'host' : 'hosts' }}
      </summary>
      <p v-for="stranger in others" :key="stranger" class="mt-1">
        <strong>{{ stranger }}</strong>
        <button type="button" class="btn-link ml-1" @click="run(() => addHost(stranger))">
          Add {{ stranger }}
        </button>
      </p>
    </details>
    <h3 class="font-body! text-base!">The one line to paste into every page of the site</h3>
    <p class="mt-1 text-ink-2">
      Anywhere between &lt;head&gt; and &lt;/head&gt;. It is the same line for everything you make here.
    </p>
    <div class="mt-2 mb-4 flex items-stretch gap-2">
      <code
        class="min-w-0 flex-1 overflow-x-auto rounded-md border border-line bg-fog px-3 py-2 whitespace-nowrap"
        tabindex="0"
        aria-label="Snippet"
        >{{ site.snippet }}</code
      >
      <button type="button" class="btn" @click="copy(site.snippet)">{{ copied ? 'Copied' : 'Copy' }}</button>
    </div>
    <details class="mb-4">
      <summary class="text-petrol">How to put it in, or have somebody do it</summary>
      <ul class="mt-1.5 list-disc pl-5">
        <li>
          You write the pages yourself: into the template that all pages share, just before &lt;/head&gt;.
        </li>
        <li>
          Your site is made in a builder: look in its settings for code in the head of every page, and paste
          it there.
        </li>
        <li>You have a tag manager: as a snippet of HTML, on all pages.</li>
        <li>
          What the script can do, and every call it takes, for whoever keeps your site:
          <RouterLink to="/script" class="btn-link">the script on your site</RouterLink>.
        </li>
        <li>
          Visitors are asked for consent first: add <code>data-consent="wait"</code> to the line, and call
          <code>intavo.consent(true)</code> once they agree. Until then nothing is asked or kept.
        </li>
      </ul>
      <form class="mt-2 flex flex-wrap items-start gap-2" novalidate @submit.prevent="mailing.run(mailIt)">
        <span class="max-w-full">
          <input
            v-model="keeper"
            type="email"
            class="input w-72! max-w-full"
            placeholder="whoever keeps your site"
            aria-label="Address of whoever keeps your site"
            :aria-invalid="!!mailing.fields.value.to"
          />
          <span v-if="mailing.fields.value.to" class="block font-semibold text-rust" role="alert">{{
            mailing.fields.value.to
          }}</span>
        </span>
        <button class="btn" :disabled="mailing.busy.value">Mail them how</button>
        <button type="button" class="btn" @click="mailing.run(copyIt)">Copy the text</button>
        <p class="w-full text-sm text-ink-2">
          We write to you, to other members, and to who has confirmed an address here; to anybody else, send
          the text yourself.
        </p>
        <ErrorBox v-if="!mailing.fields.value.to" class="w-full" :error="mailing.error.value" />
      </form>
    </details>
    <form novalidate @submit.prevent="run(() => save())">
      <fieldset>
        <legend class="mb-1 font-semibold">Addresses of this site</legend>
        <p class="mb-2 text-ink-2">
          Write them as you like: with or without https or www, it is all the same to us.
        </p>
        <div v-for="(_, at) in draft.hosts" :key="at" class="mb-1.5">
          <span class="flex gap-2">
            <input
              v-model="draft.hosts[at]"
              class="input max-w-96"
              :aria-label="`Address ${at + 1}`"
              :placeholder="at === draft.hosts.length - 1 ? 'another address' : ''"
              :aria-invalid="!!fields[`hosts.${at}`]"
              :aria-describedby="`host-${site.id}-${at}`"
              @input="typed(at)"
            />
            <button
              v-if="draft.hosts[at]"
              type="button"
              class="btn"
              :aria-label="`Remove ${draft.hosts[at]}`"
              @click="draft.hosts.splice(at, 1)"
            >
              Remove
            </button>
          </span>
          <p
            v-if="fields[`hosts.${at}`]"
            :id="`host-${site.id}-${at}`"
            class="mt-1 font-semibold text-rust"
            role="alert"
          >
            {{ fields[`hosts.${at}`] }}
          </p>
        </div>
      </fieldset>
      <label class="mb-3 block"
        ><span class="mb-1 block font-semibold">Its visitors are spoken to in</span>
        <select v-model="draft.language" class="input max-w-96">
          <option value="">as your business</option>
          <option v-for="(words, code) in LANGUAGES" :key="code" :value="code">{{ words }}</option>
        </select></label
      >
      <ClashBox :error="error" @mine="run(() => save(true))" @theirs="(afresh(), clear())">
        <p v-if="fields.hosts" class="font-semibold text-rust" role="alert">{{ fields.hosts }}</p>
        <ErrorBox v-if="!Object.keys(fields).length" :error="error" />
      </ClashBox>
      <button class="btn mt-2" :disabled="busy">Save the site</button>
    </form>
    <SiteRules :id="`site-rules`" :site="site" />
    <HouseStyle :id="`house`" :site="site" />
    <!-- It comes after the rest, so it stands below it: nothing moves under the pointer. -->
    <p v-if="refused?.length" class="mt-4 border-t border-line-2 pt-3 text-ink-2">
      In the last seven days these reports were not counted:
      {{ refused.map((one) => `${saidCount(one.count)} ${one.why}`).join('; ') }}.
    </p>
  </article>
</template>
