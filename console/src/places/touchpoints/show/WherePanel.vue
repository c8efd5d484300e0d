<script setup lang="ts">
import { saidCount } from '@/lib/time'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { matchingPages, usePages, useSites } from '@/api/sites'
import type { Draft } from '@/api/touchpoints'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsList from './WordsList.vue'
import PatternList from './PatternList.vue'
import type { Pattern, Sentence } from './sentence'

/** Where: pages seen on the site, typed or by pattern, and which of the known pages that comes to. */
const props = defineProps<{ sentence: Sentence; draft: Draft }>()
const emit = defineEmits<{ set: [patch: Partial<Sentence>] }>()
const { landing, not_landing, kinds, not_kinds } = props.sentence
const odd = [...props.sentence.pages, ...props.sentence.not_pages].some(
  (one) => one.query || !['exact', 'below'].includes(one.kind),
)
const exact = ref(odd || [landing, not_landing, kinds, not_kinds].some((one) => one.length > 0))
const site = computed(() => props.draft.sites[0]?.id ?? 0)
const { data: pages } = usePages(site)
const { data: sites } = useSites()
const groups = computed(
  () => sites.value?.find((one) => one.id === site.value)?.rules.groups.map((one) => one.name) ?? [],
)
const known = computed(() => [...new Set(pages.value?.flatMap((one) => one.kinds) ?? [])].sort())
const { data: matching } = useQuery({
  queryKey: computed(() => ['matching', site.value, props.sentence, pages.value?.length]),
  queryFn: () => matchingPages(site.value, props.sentence),
  enabled: computed(() => site.value > 0),
  placeholderData: (before) => before,
})
const chosen = (path: string) => props.sentence.pages.some((one) => one.kind === 'exact' && one.path === path)
function choose(path: string, on: boolean) {
  const others = props.sentence.pages.filter((one) => one.kind !== 'exact' || one.path !== path)
  emit('set', { pages: on ? [...others, { kind: 'exact', path, query: false }] : others })
}
const patterns = (name: 'pages' | 'not_pages' | 'landing' | 'not_landing') => (found: Pattern[]) =>
  emit('set', { [name]: found })
function sitesOf(slug: string, on: boolean) {
  const all = props.draft.sites.map((one) => one.slug)
  const now = props.sentence.sites.length ? props.sentence.sites : all
  const next = all.filter((one) => (one === slug ? on : now.includes(one)))
  if (next.length) emit('set', { sites: next.length === all.length ? [] : next })
}
</script>

<template>
  <div class="grid gap-3">
    <fieldset v-if="draft.sites.length > 1" class="flex flex-wrap gap-3">
      <legend class="font-semibold">On which of its sites</legend>
      <TickBox
        v-for="one in draft.sites"
        :key="one.id"
        :value="!sentence.sites.length || sentence.sites.includes(one.slug)"
        @set="sitesOf(one.slug, $event)"
        >{{ one.name }}</TickBox
      >
    </fieldset>
    <PatternList
      label="Only on these pages"
      :patterns="sentence.pages"
      :exact="exact"
      :groups="groups"
      @set="patterns('pages')($event)"
    />
    <details v-if="pages?.length" class="text-sm">
      <summary class="text-petrol">Pages seen on the site ({{ pages.length }})</summary>
      <ul class="mt-1 grid max-h-40 gap-0.5 overflow-auto">
        <li v-for="one in pages" :key="one.path">
          <label class="flex items-baseline gap-2"
            ><input
              type="checkbox"
              :checked="chosen(one.path)"
              @change="choose(one.path, ($event.target as HTMLInputElement).checked)"
            />
            <span class="min-w-0 truncate"
              >{{ one.path }} <span class="text-ink-2">{{ one.title }}</span></span
            >
            <span class="ml-auto text-ink-2">{{ saidCount(one.views) }}</span></label
          >
        </li>
      </ul>
    </details>
    <PatternList
      label="But not on"
      :patterns="sentence.not_pages"
      :exact="exact"
      :groups="groups"
      @set="patterns('not_pages')($event)"
    />
    <template v-if="exact">
      <PatternList
        label="First page they see: only these"
        :patterns="sentence.landing"
        exact
        :groups="groups"
        @set="patterns('landing')($event)"
      />
      <PatternList
        label="First page they see: not these"
        :patterns="sentence.not_landing"
        exact
        :groups="groups"
        @set="patterns('not_landing')($event)"
      />
      <WordsList
        label="Only pages that say they are"
        :words="sentence.kinds"
        :offered="known"
        hint="a kind, such as article"
        @set="emit('set', { kinds: $event })"
      />
      <WordsList
        label="Not pages that say they are"
        :words="sentence.not_kinds"
        :offered="known"
        hint="a kind"
        @set="emit('set', { not_kinds: $event })"
      />
    </template>
    <button v-else type="button" class="btn-link justify-self-start" @click="exact = true">
      more exact …
    </button>
    <p v-if="matching" class="border-t border-line-2 pt-2 text-sm" role="status">
      <template v-if="!matching.of">No page of the site has been seen yet.</template>
      <template v-else-if="!matching.paths.length"
        ><strong class="text-brass">▲ None of the {{ matching.of }} known pages.</strong></template
      >
      <template v-else
        ><strong>{{ matching.paths.length }} of {{ matching.of }} known pages:</strong>
        {{ matching.paths.slice(0, 12).join(', ') }}{{ matching.paths.length > 12 ? ' …' : '' }}</template
      >
    </p>
  </div>
</template>
