<script setup lang="ts">
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import { useKnownSites } from '@/api/sites'
import { vTyped } from '@/lib/typed'
import { WAYS } from '@/lib/names'
import type { Sentence, Who } from './sentence'
import WordsList from './WordsList.vue'

/** Who: devices, and pieces that must all hold, each also the other way round. */
const props = defineProps<{ sentence: Sentence }>()
const emit = defineEmits<{ set: [patch: Partial<Sentence>] }>()
type Device = Sentence['devices'][number]
const DEVICES: Device[] = ['desktop', 'tablet', 'phone']
const FRESH: Record<Who['kind'], [name: string, piece: object]> = {
  been: ['have been here before', {}],
  visits: ['number of visits', { least: 2, most: null }],
  pages: ['pages they saw', { least: 2, span: 'visit' }],
  arrival: ['where they came from', { ways: ['search'] }],
  referrer: ['the address they came from', { address: { how: 'contains', text: 'example.org' } }],
  campaign: ['a campaign tag', { tag: 'utm_campaign', value: { how: 'exact', text: 'spring' } }],
  on_list: ['are on your list', {}],
  tag: ['have a tag', { tags: ['a tag'] }],
  signed_in: ['are signed in to your site', {}],
  language: ['language', { languages: ['en'] }],
}
const WAYS_ROUND: Record<Who['kind'], [so: string, not: string]> = {
  been: ['have been', 'have not been'],
  visits: ['are on so many', 'are not on so many'],
  pages: ['have seen so many', 'have not seen so many'],
  arrival: ['came this way', 'did not come this way'],
  referrer: ['came from it', 'did not come from it'],
  campaign: ['came with it', 'did not come with it'],
  on_list: ['are on it', 'are not on it'],
  tag: ['have it', 'do not have it'],
  signed_in: ['are signed in', 'are not signed in'],
  language: ['read it', 'do not read it'],
}
const { data: sites } = useKnownSites()
/** Lists that a piece goes by and that are empty. */
const empty = (ways: readonly string[]) =>
  (['search', 'social'] as const).filter(
    (way) =>
      ways.includes(way) &&
      sites.value?.some((one) => !one.rules[way].length && !one.rules[`${way}_media`].length),
  )
const HOW = {
  exact: 'is',
  contains: 'contains',
  glob: 'is, with * and ?',
  regex: 'matches (regular expression)',
}
const SPANS = { visit: 'in this visit', ever: 'ever' }
function setDevice(device: Device, on: boolean) {
  const devices = DEVICES.filter((one) => (one === device ? on : props.sentence.devices.includes(one)))
  if (devices.length) emit('set', { devices })
}
function add(event: Event) {
  const box = event.target as HTMLSelectElement
  const kind = box.value as Who['kind']
  box.value = ''
  const made = { unless: false, kind, ...structuredClone(FRESH[kind][1]) } as Who
  emit('set', { who: [...props.sentence.who, made] })
}
const change = (at: number, patch: object) =>
  emit('set', {
    who: props.sentence.who.map((one, index) => (index === at ? ({ ...one, ...patch } as Who) : one)),
  })
const drop = (at: number) => emit('set', { who: props.sentence.who.filter((_, index) => index !== at) })
function way(at: number, one: Extract<Who, { kind: 'arrival' }>, name: string, on: boolean) {
  const ways = (Object.keys(WAYS) as (keyof typeof WAYS)[]).filter((each) =>
    each === name ? on : one.ways.includes(each),
  )
  if (ways.length) change(at, { ways })
}
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="grid gap-3">
    <fieldset class="flex flex-wrap gap-x-4">
      <legend class="font-semibold">On which devices</legend>
      <TickBox
        v-for="device in DEVICES"
        :key="device"
        :value="sentence.devices.includes(device)"
        @set="setDevice(device, $event)"
        >on a {{ device }}</TickBox
      >
    </fieldset>
    <fieldset
      v-for="(one, at) in sentence.who"
      :key="`${at} ${one.kind}`"
      class="grid gap-1.5 rounded-md border border-line p-2"
    >
      <legend class="sr-only">{{ FRESH[one.kind][0] }}</legend>
      <span class="flex items-center gap-2">
        <strong>{{ FRESH[one.kind][0] }}</strong>
        <select
          class="input ml-auto w-auto!"
          :aria-label="`Those who do, or those who do not: ${FRESH[one.kind][0]}`"
          :value="one.unless ? 'not' : 'so'"
          @change="change(at, { unless: ($event.target as HTMLSelectElement).value === 'not' })"
        >
          <option value="so">{{ WAYS_ROUND[one.kind][0] }}</option>
          <option value="not">{{ WAYS_ROUND[one.kind][1] }}</option>
        </select>
        <button
          type="button"
          class="btn-link text-rust min-h-6 min-w-6"
          :aria-label="`Leave out: ${FRESH[one.kind][0]}`"
          @click="drop(at)"
        >
          ×
        </button>
      </span>
      <span v-if="one.kind === 'visits'" class="flex flex-wrap items-center gap-2">
        at least
        <NumberBox
          label="At least so many visits"
          :value="one.least"
          :least="1"
          :most="10000"
          empty="any"
          @set="change(at, { least: $event })"
        />
        at most
        <NumberBox
          label="At most so many visits"
          :value="one.most"
          :least="1"
          :most="10000"
          empty="any"
          @set="change(at, { most: $event })"
        />
      </span>
      <span v-else-if="one.kind === 'pages'" class="grid grid-cols-[auto_5rem_1fr] items-center gap-2">
        at least
        <NumberBox
          label="At least so many pages"
          :value="one.least"
          :least="1"
          :most="10000"
          @set="change(at, { least: $event })"
        />
        <SelectBox
          label="Pages: in which span"
          :value="one.span"
          :options="SPANS"
          @set="change(at, { span: $event })"
        />
      </span>
      <span v-else-if="one.kind === 'arrival'" class="grid gap-1">
        <TickBox
          v-for="(words, name) in WAYS"
          :key="name"
          :value="one.ways.includes(name)"
          @set="way(at, one, name, $event)"
          >{{ words }}</TickBox
        >
        <span class="text-sm text-ink-2"
          >What counts as a search or social site is in your list on
          <RouterLink to="/business#site-rules" class="btn-link">Business</RouterLink>.</span
        >
        <strong v-for="list in empty(one.ways)" :key="list" class="text-sm text-brass"
          >▲ Your list of {{ list }} sites is empty, so nobody is seen to come from one.
          <RouterLink to="/business#site-rules" class="btn-link"
            >Fill it from where visits came from</RouterLink
          ></strong
        >
      </span>
      <span v-else-if="one.kind === 'referrer'" class="grid grid-cols-[10rem_1fr] gap-2">
        <SelectBox
          label="Address: how"
          :value="one.address.how"
          :options="HOW"
          @set="change(at, { address: { ...one.address, how: $event } })"
        />
        <input
          v-typed="one.address.text"
          class="input"
          aria-label="Address they came from"
          @change="typed($event) && change(at, { address: { ...one.address, text: typed($event) } })"
        />
        <span class="col-span-2 text-sm text-ink-2"
          >Browsers often pass on only the host, as in “example.org”.</span
        >
      </span>
      <span v-else-if="one.kind === 'campaign'" class="grid grid-cols-[8rem_8rem_1fr] gap-2">
        <input
          v-typed="one.tag"
          class="input"
          aria-label="Campaign tag"
          @change="typed($event) && change(at, { tag: typed($event) })"
        />
        <SelectBox
          label="Campaign: how"
          :value="one.value.how"
          :options="HOW"
          @set="change(at, { value: { ...one.value, how: $event } })"
        />
        <input
          v-typed="one.value.text"
          class="input"
          aria-label="Value of the campaign tag"
          @change="typed($event) && change(at, { value: { ...one.value, text: typed($event) } })"
        />
      </span>
      <WordsList
        v-else-if="one.kind === 'tag'"
        label="Any of these tags"
        :words="one.tags"
        hint="a tag that a touchpoint gives"
        @set="$event.length && change(at, { tags: $event })"
      />
      <WordsList
        v-else-if="one.kind === 'language'"
        label="Any of these languages"
        :words="one.languages"
        hint="en, cy, de …"
        @set="$event.length && change(at, { languages: $event })"
      />
      <span v-else-if="one.kind === 'on_list'" class="text-sm text-ink-2"
        >As far as their browser knows: who signed up on it.</span
      >
      <span v-else-if="one.kind === 'signed_in'" class="text-sm text-ink-2"
        >Your site’s script says so, or the element that you name on
        <RouterLink to="/business" class="btn-link">Business</RouterLink>.</span
      >
    </fieldset>
    <select class="input" aria-label="Add something about them" value="" @change="add">
      <option value="" disabled>+ only those who …</option>
      <option v-for="([name], kind) in FRESH" :key="kind" :value="kind">{{ name }}</option>
    </select>
  </div>
</template>
