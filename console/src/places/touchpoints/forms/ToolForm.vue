<script setup lang="ts">
import { computed, inject } from 'vue'
import { useQuestions } from '@/api/questions'
import AddressBox from '@/parts/fields/AddressBox.vue'
import DoesForm from './DoesForm.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { Does, PartOf, TouchpointDocument } from '@/api/document'
import { FIRST_WORDS } from '../fresh'

type Tool =
  | PartOf<'links'>
  | PartOf<'share'>
  | PartOf<'hours'>
  | PartOf<'questions'>
  | PartOf<'markup'>
  | PartOf<'space'>
  | PartOf<'line'>
  | PartOf<'code'>
const props = defineProps<{ part: Tool; document: TouchpointDocument }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const words = inject(FIRST_WORDS, undefined)
const { data: questions } = useQuestions()
const groups = computed(() => {
  const names = [...new Set((questions.value ?? []).map((one) => one.group).filter(Boolean))]
  return { '': 'all of them', ...Object.fromEntries(names.map((one) => [one, one])) }
})
const COLUMNS = { 1: 'in one column', 2: 'in two columns' }
const EMPTY: Does = {
  action: 'page',
  next: null,
  address: '',
  asset: null,
  touchpoint: '',
  spot: '',
  channel: '',
  tab: 'same',
  goal: false,
  href: '',
}

function item(at: number, patch: object) {
  if (props.part.kind === 'links')
    emit('set', { items: props.part.items.map((one, index) => (index === at ? { ...one, ...patch } : one)) })
}
</script>

<template>
  <div class="grid gap-2">
    <template v-if="part.kind === 'links'">
      <SelectBox
        label="How they stand"
        :value="String(part.columns)"
        :options="COLUMNS"
        @set="emit('set', { columns: Number($event) })"
      />
      <fieldset
        v-for="(one, at) in part.items"
        :key="at"
        class="grid gap-1 rounded-md border border-line p-2"
      >
        <legend class="text-sm text-ink-2">Words of link {{ at + 1 }}</legend>
        <span class="flex gap-1">
          <input
            class="input"
            :value="one.label"
            :aria-label="`Words of link ${at + 1}`"
            @input="item(at, { label: ($event.target as HTMLInputElement).value })"
          />
          <button
            type="button"
            class="btn px-1.5!"
            :aria-label="`Remove ${one.label}`"
            @click="emit('set', { items: part.items.filter((_, index) => index !== at) })"
          >
            ✕
          </button>
        </span>
        <DoesForm
          :does="one.does"
          :document="document"
          :without="['send']"
          :label="`What link ${at + 1} does`"
          @set="item(at, { does: $event })"
        />
      </fieldset>
      <button
        type="button"
        class="btn-link justify-self-start"
        @click="emit('set', { items: [...part.items, { label: words?.link ?? '', does: EMPTY }] })"
      >
        + Link
      </button>
    </template>
    <template v-else-if="part.kind === 'share'">
      <WordsBox label="Words on the button" :value="part.label" @set="emit('set', { label: $event })" />
      <AddressBox
        label="What is shared"
        placeholder="the page they are on"
        :value="part.address"
        @set="emit('set', { address: $event })"
      />
      <WordsBox label="With these words" :value="part.words" @set="emit('set', { words: $event })" />
    </template>
    <template v-else-if="part.kind === 'hours'">
      <TickBox :value="part.now" @set="emit('set', { now: $event })">whether it is open now</TickBox>
      <TickBox :value="part.week" @set="emit('set', { week: $event })">the next seven days</TickBox>
    </template>
    <template v-else-if="part.kind === 'questions'">
      <SelectBox
        label="Which ones"
        :value="part.group"
        :options="groups"
        @set="emit('set', { group: $event })"
      />
      <TickBox :value="part.search" @set="emit('set', { search: $event })">can be searched</TickBox>
      <TickBox :value="part.helped" @set="emit('set', { helped: $event })">asks “did this help?”</TickBox>
      <RouterLink to="/business#questions" class="btn-link">Write questions & answers</RouterLink>
    </template>
    <template v-else-if="part.kind === 'markup'">
      <WordsBox
        label="Markup of somebody else"
        :rows="5"
        :value="part.html"
        hint="It runs in a frame of its own and cannot touch your page."
        @set="emit('set', { html: $event })"
      />
      <span class="flex items-center gap-2"
        >height at first
        <NumberBox
          label="Height"
          :value="part.height"
          :least="20"
          :most="2000"
          :step="10"
          @set="emit('set', { height: $event ?? 200 })"
        />
        px</span
      >
      <p class="text-sm text-ink-2">It grows and shrinks with what stands in it.</p>
      <TickBox :value="part.windows" @set="emit('set', { windows: $event })"
        >windows that it opens are real ones</TickBox
      >
      <WordsBox
        label="What it is, for those who do not see it"
        :value="part.description"
        @set="emit('set', { description: $event })"
      />
    </template>
    <span v-else-if="part.kind === 'space'" class="flex items-center gap-2"
      ><NumberBox
        label="Height"
        :value="part.height"
        :least="4"
        :most="200"
        :step="4"
        @set="emit('set', { height: $event ?? 16 })"
      />
      px</span
    >
    <template v-else-if="part.kind === 'code'">
      <WordsBox label="Words before it" :value="part.label" @set="emit('set', { label: $event })" />
      <p class="text-sm text-ink-2">Which code it is stands under “After”, above.</p>
    </template>
  </div>
</template>
