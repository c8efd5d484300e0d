<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { nextTick, ref } from 'vue'
import { setRules, usePages, useSources, type Site } from '@/api/sites'
import { copyOf, useDraft } from '@/lib/draft'
import { useNotices } from '@/lib/notices'
import ClashBox from '@/parts/ClashBox.vue'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/parts/form'
import NumberBox from '@/parts/fields/NumberBox.vue'
import PatternList from '@/places/touchpoints/show/PatternList.vue'
import WordsList from '@/places/touchpoints/show/WordsList.vue'

/**
 * What holds for every touchpoint of a site: where people come from, groups of pages, and how often it may
 * interrupt.
 */
const props = defineProps<{ site: Site }>()
const queries = useQueryClient()
const notices = useNotices()
const { error, fields, busy, run, clear } = useForm()
const { draft: rules, base, afresh, kept } = useDraft(() => props.site.rules)
const { data: pages } = usePages(() => props.site.id)
const { data: sources } = useSources(() => props.site.id)
/** Where visits came from that is in neither list yet. */
function seen(kind: 'host' | 'medium'): string[] {
  const { search, social, search_media, social_media } = rules.value
  const listed = kind === 'host' ? [...search, ...social] : [...search_media, ...social_media]
  return (sources.value ?? [])
    .filter((one) => one.kind === kind && !listed.includes(one.name))
    .map((one) => one.name)
}
const group = ref('')
function addGroup() {
  const name = group.value.trim()
  const first = pages.value?.[0]?.path ?? '/'
  if (name) rules.value.groups.push({ name, pages: [{ kind: 'exact', path: first, query: false }] })
  group.value = ''
}
/** Saves what was made from `base`; what others have changed since stays. */
async function save(all_the_same = false) {
  const sent = copyOf(rules.value)
  await setRules(props.site.id, { rules: sent, based_on: base.value, all_the_same })
  await queries.invalidateQueries()
  await nextTick()
  kept(sent)
  notices.say('Saved. Visitors get it within a second.')
}
const wrong = () =>
  Object.entries(fields.value)
    .map(([place, words]) => `${place.replace(/^rules\./, '')}: ${words}`)
    .join(' ')
</script>

<template>
  <details class="mt-4 border-t border-line-2 pt-3">
    <summary class="font-semibold">
      Showing on this site: where people come from, groups of pages, interruptions
    </summary>
    <form class="mt-3 grid gap-3" novalidate @submit.prevent="run(() => save())">
      <div class="grid gap-3 sm:grid-cols-2">
        <WordsList
          label="Search sites"
          :words="rules.search"
          :seen="seen('host')"
          hint="findit.example"
          @set="rules.search = $event"
        />
        <WordsList
          label="Social sites"
          :words="rules.social"
          :seen="seen('host')"
          hint="chatter.example"
          @set="rules.social = $event"
        />
        <WordsList
          label="utm_medium that means search"
          :words="rules.search_media"
          :seen="seen('medium')"
          hint="cpc"
          @set="rules.search_media = $event"
        />
        <WordsList
          label="utm_medium that means social"
          :words="rules.social_media"
          :seen="seen('medium')"
          hint="social"
          @set="rules.social_media = $event"
        />
      </div>
      <fieldset class="grid gap-2">
        <legend class="font-semibold">Groups of pages</legend>
        <div v-for="(one, at) in rules.groups" :key="one.name" class="rounded-md border border-line p-2">
          <span class="flex">
            <button
              type="button"
              class="btn-link ml-auto text-rust"
              :aria-label="`Leave out the group ${one.name}`"
              @click="rules.groups.splice(at, 1)"
            >
              leave out
            </button>
          </span>
          <PatternList
            :label="one.name"
            :patterns="one.pages"
            exact
            :groups="[]"
            @set="$event.length && (one.pages = $event)"
          />
        </div>
        <span class="flex gap-2"
          ><input
            v-model="group"
            class="input max-w-60"
            placeholder="name of a new group"
            aria-label="Name of a new group of pages"
            @keydown.enter.prevent="addGroup"
          /><button type="button" class="btn" :disabled="!group.trim()" @click="addGroup">Add</button></span
        >
      </fieldset>
      <span class="flex flex-wrap items-center gap-2"
        >Interrupt a visit at most
        <NumberBox
          label="Interruptions of a visit"
          :value="rules.most_interruptions"
          :least="1"
          :most="100"
          empty="any"
          @set="rules.most_interruptions = $event"
        />
        times</span
      >
      <WordsList
        label="Elements of the site that go first"
        :words="rules.give_way_to"
        hint="#cookie-note"
        @set="rules.give_way_to = $event"
      />
      <p class="-mt-3 text-sm text-ink-2">
        What a visitor has unfolded, is filling in or is talking in goes first by itself.
      </p>
      <label class="grid gap-1"
        ><span class="font-semibold">Somebody is signed in where this element is</span
        ><input
          v-model="rules.signed_in"
          class="input max-w-96 font-mono text-sm"
          placeholder=".account"
          aria-label="Element that shows who is signed in"
      /></label>
      <ClashBox :error="error" @mine="run(() => save(true))" @theirs="(afresh(), clear())">
        <p v-if="Object.keys(fields).length" class="font-semibold text-rust" role="alert">{{ wrong() }}</p>
        <ErrorBox v-else :error="error" />
      </ClashBox>
      <button class="btn justify-self-start" :disabled="busy">Save what holds for the site</button>
    </form>
  </details>
</template>
