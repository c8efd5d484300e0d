<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import { computed } from 'vue'
import type { TouchpointDocument } from '@visitor/generated/document'
import { momentsOf, sayDevices, sayMoments, sayPages } from './sentence'
import SentencePiece from './SentencePiece.vue'

type Sentence = TouchpointDocument['show']['sentences'][number]
type Device = Sentence['devices'][number]
const props = defineProps<{ document: TouchpointDocument }>()
const emit = defineEmits<{ change: [what: string, change: (document: TouchpointDocument) => void] }>()
const show = computed(() => props.document.show)
// This editor knows one sentence; further ones are kept as they are.
const sentence = computed(() => show.value.sentences[0] as Sentence)
const moments = computed(() => momentsOf(sentence.value))
const DEVICES: Device[] = ['desktop', 'tablet', 'phone']

function change(what: string, edit: (sentence: Sentence, document: TouchpointDocument) => void) {
  emit('change', `show.${what}`, (document) => {
    const first = document.show.sentences[0]
    if (first) edit(first, document)
  })
}
function setPages(which: 'pages' | 'not_pages', text: string) {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
  change(which, (first) => {
    first[which] = lines.map((line) => ({
      kind: line.endsWith('*') ? ('below' as const) : ('exact' as const),
      path: line.replace(/\s*\/?\*$/, '') || '/',
    }))
  })
}
const asText = (patterns: Sentence['pages']) =>
  patterns.map((one) => (one.kind === 'below' ? `${one.path.replace(/\/$/, '')}/*` : one.path)).join('\n')
function setDevice(device: Device, on: boolean) {
  const devices = DEVICES.filter((one) => (one === device ? on : sentence.value.devices.includes(one)))
  if (devices.length) change('devices', (first) => (first.devices = devices))
}
function setMoments(after: number | null, read: number | null, leave = moments.value.leave) {
  const moment = (one: Partial<Sentence['moments'][number][number]>) => [{ after: null, read: null, leave: null, ...one }]
  change('moments', (first) => {
    first.moments = [
      ...(after === null ? [] : [moment({ after })]),
      ...(read === null ? [] : [moment({ read })]),
      ...(leave ? [moment({ leave: true })] : []),
    ]
  })
}
const number = (event: Event, least: number, most: number) =>
  Math.min(most, Math.max(least, Math.round(Number((event.target as HTMLInputElement).value)) || least))
const checked = (event: Event) => (event.target as HTMLInputElement).checked
const text = (event: Event) => (event.target as HTMLTextAreaElement).value
</script>

<template>
  <p class="font-head text-lg leading-8">
    Show
    <SentencePiece :words="sayPages(sentence)">
      <label for="pages" class="font-semibold">Only on these pages</label>
      <textarea
        id="pages"
        v-typed="asText(sentence.pages)"
        rows="4"
        class="input mt-1"
        placeholder="every page"
        @change="setPages('pages', text($event))"
      />
      <label for="not-pages" class="mt-2 block font-semibold">But not on</label>
      <textarea
        id="not-pages"
        v-typed="asText(sentence.not_pages)"
        rows="2"
        class="input mt-1"
        @change="setPages('not_pages', text($event))"
      />
      <p class="mt-1 text-sm text-ink-2">One a line. /trips is that page; /trips/* is it and all below it.</p>
    </SentencePiece>
    to
    <SentencePiece :words="sayDevices(sentence)">
      <label v-for="device in DEVICES" :key="device" class="flex items-center gap-2"
        ><input type="checkbox" :checked="sentence.devices.includes(device)" @change="setDevice(device, checked($event))" /> on a
        {{ device }}</label
      > </SentencePiece
    >,
    <SentencePiece :words="sayMoments(sentence)">
      <label class="flex items-center gap-2"
        ><input type="checkbox" :checked="moments.after !== null" @change="setMoments(checked($event) ? 12 : null, moments.read)" /> after
        <input
          v-typed="moments.after ?? 12"
          type="number"
          min="0"
          max="3600"
          class="input w-20!"
          aria-label="Seconds on the page"
          :disabled="moments.after === null"
          @change="setMoments(number($event, 0, 3600), moments.read)"
        />
        seconds</label
      >
      <label class="mt-1 flex items-center gap-2"
        ><input type="checkbox" :checked="moments.read !== null" @change="setMoments(moments.after, checked($event) ? 40 : null)" /> at
        <input
          v-typed="moments.read ?? 40"
          type="number"
          min="1"
          max="100"
          class="input w-20!"
          aria-label="Percent of the page"
          :disabled="moments.read === null"
          @change="setMoments(moments.after, number($event, 1, 100))"
        />
        % of the page</label
      >
      <label class="mt-1 flex items-center gap-2"
        ><input type="checkbox" :checked="moments.leave" @change="setMoments(moments.after, moments.read, checked($event))" /> when they are
        about to leave</label
      > </SentencePiece
    >,
    <SentencePiece
      :words="
        show.how_often.once_in_days === null
          ? 'on every page view'
          : `at most once in ${show.how_often.once_in_days} ${show.how_often.once_in_days === 1 ? 'day' : 'days'}`
      "
    >
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="show.how_often.once_in_days !== null"
          @change="change('often', (_, d) => (d.show.how_often.once_in_days = checked($event) ? 7 : null))"
        />
        at most once in
        <input
          v-typed="show.how_often.once_in_days ?? 7"
          type="number"
          min="1"
          max="3650"
          class="input w-20!"
          aria-label="Days"
          :disabled="show.how_often.once_in_days === null"
          @change="change('often', (_, d) => (d.show.how_often.once_in_days = number($event, 1, 3650)))"
        />
        days</label
      > </SentencePiece
    >,
    <SentencePiece :words="show.until.answered ? 'until they answer' : 'also after they answer'">
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="show.until.answered"
          @change="change('until', (_, d) => (d.show.until.answered = checked($event)))"
        />
        not any more after they answered</label
      > </SentencePiece
    >.
    <span v-if="show.sentences.length > 1" class="font-body text-base text-ink-2">Or by {{ show.sentences.length - 1 }} more.</span>
  </p>
</template>
