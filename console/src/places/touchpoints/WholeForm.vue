<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { useClipboard } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useSites } from '@/api/sites'
import { LANGUAGES } from '@/lib/languages'
import type { Draft } from '@/api/touchpoints'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { Change, TouchpointDocument } from '@/api/document'

/** What belongs to the whole: its sites, its spot in the page, how to link to it. */
const props = defineProps<{ document: TouchpointDocument; draft: Draft; wrong: Record<string, string> }>()
const emit = defineEmits<{ change: Change; site: [id: number, on: boolean]; copy: [language: string] }>()
const { data: sites } = useSites()
const WHERE = choices.where
const TONGUES: Record<string, string> = choices.language
const other = ref('')
/** What it is not in yet, nor any other of its set. */
const others = computed(() => {
  const there = [props.document.language, ...props.draft.in_other_languages.map((one) => one.language)]
  return Object.fromEntries(Object.entries(LANGUAGES).filter(([code]) => !there.includes(code)))
})
const { copy, copied, text: copiedText } = useClipboard({ legacy: true })
const links = computed(() => {
  const { slug, sites: placed, state } = props.draft
  const outside =
    placed[0] && state === 'live'
      ? [
          ['From outside, on a page of the site', `${location.origin}/l/${placed[0].slug}/${slug}`],
          ['From outside, its own page', `${location.origin}/t/${placed[0].slug}/${slug}`],
        ]
      : []
  const home = sites.value?.find((one) => one.id === placed[0]?.id)?.seen?.url
  const page = home ? new URL(props.draft.example_page, home).href : ''
  return [
    ['Behind any link of your site', `#intavo-${slug}`],
    ...(page ? [['As an address', `${page}#intavo-${slug}`]] : []),
    ['A link, as HTML', `<a href="#intavo-${slug}">${props.draft.name}</a>`],
    ['A button, as HTML', `<button data-intavo-open="${slug}">${props.draft.name}</button>`],
    ['Its place in a page, as HTML', `<div data-intavo="${slug}"></div>`],
    ['By your own script', `intavo.open('${slug}')`],
    ...outside,
  ] as [string, string][]
})
</script>

<template>
  <div class="grid gap-2">
    <template v-if="document.stance === 'in-page'">
      <WordsBox
        label="It stands by the first element that matches"
        placeholder="main, #news, .sidebar"
        :value="document.spot.selector"
        :bad="wrong['spot.selector']"
        hint="Or put <div data-intavo=“its short name”> where you want it."
        @set="emit('change', 'spot', (d) => (d.spot.selector = $event))"
      />
      <SelectBox
        label="Where it stands there"
        :value="document.spot.where"
        :options="WHERE"
        @set="emit('change', 'spot.where', (d) => (d.spot.where = $event))"
      />
    </template>
    <SelectBox
      label="It is in"
      :value="document.language"
      :options="TONGUES"
      @set="emit('change', 'language', (d) => (d.language = $event))"
    />
    <ul v-if="draft.in_other_languages.length" class="text-sm" aria-label="In other languages">
      <li v-for="one in draft.in_other_languages" :key="one.id">
        {{ TONGUES[one.language] ?? one.language }}:
        <RouterLink :to="`/touchpoints/${one.id}`" class="btn-link">{{ one.name }}</RouterLink>
        <span class="text-ink-2">{{ one.on ? ' · on' : ' · not on' }}</span>
      </li>
    </ul>
    <div class="flex items-end gap-2">
      <SelectBox
        class="flex-1"
        label="A copy in another language"
        :value="other"
        :options="{ '': 'choose …', ...others }"
        @set="other = $event"
      />
      <button type="button" class="btn" :disabled="!other" @click="emit('copy', other)">Make it</button>
    </div>
    <p class="text-sm text-ink-2">
      It comes to those who read that language, and this one to all others, once it is on.
    </p>
    <fieldset v-if="sites && sites.length > 0" data-place="sites" class="grid gap-1">
      <legend class="text-sm text-ink-2">On these sites</legend>
      <TickBox
        v-for="one in sites"
        :key="one.id"
        :value="draft.sites.some((placed) => placed.id === one.id)"
        @set="emit('site', one.id, $event)"
        >{{ one.name }}</TickBox
      >
    </fieldset>
    <p class="text-sm text-ink-2">
      Its short name in links is <code>{{ draft.slug }}</code>.
    </p>
    <details class="text-sm">
      <summary class="text-petrol">How to link to it</summary>
      <dl class="mt-1 grid gap-1.5">
        <div v-for="[name, text] in links" :key="name">
          <dt class="text-ink-2">{{ name }}</dt>
          <dd class="flex items-start gap-1">
            <code class="min-w-0 flex-1 rounded bg-fog px-1.5 py-0.5 break-all">{{ text }}</code>
            <button type="button" class="btn-link" :aria-label="`Copy: ${name}`" @click="copy(text)">
              {{ copied && copiedText === text ? 'copied' : 'copy' }}
            </button>
          </dd>
        </div>
        <div v-if="draft.state === 'live' && draft.sites[0]">
          <dt class="text-ink-2">As a QR code</dt>
          <dd>
            <a
              class="btn-link"
              :href="`/l/${draft.sites[0].slug}/${draft.slug}.svg`"
              target="_blank"
              rel="noopener"
              >SVG</a
            >,
            <a
              class="btn-link"
              :href="`/l/${draft.sites[0].slug}/${draft.slug}.png`"
              target="_blank"
              rel="noopener"
              >PNG</a
            >
          </dd>
        </div>
        <p v-else>From outside it can be reached while it is on.</p>
      </dl>
    </details>
  </div>
</template>
