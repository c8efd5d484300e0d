<script setup lang="ts">
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { PartOf, TouchpointDocument } from '@/api/document'
import OptionRows from './OptionRows.vue'

const props = defineProps<{ part: PartOf<'question'> | PartOf<'score'>; document: TouchpointDocument }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const steps = () => Object.fromEntries(props.document.steps.map((one) => [one.id, one.name || one.id]))
const RANGES = { '0-10': '0 to 10', '1-10': '1 to 10', '1-5': '1 to 5' }

function range(text: string) {
  const [least, most] = text.split('-').map(Number)
  emit('set', { least, most })
}
function band(at: number, patch: object) {
  if (props.part.kind === 'score')
    emit('set', { bands: props.part.bands.map((one, index) => (index === at ? { ...one, ...patch } : one)) })
}
function addBand() {
  if (props.part.kind !== 'score') return
  const next = props.document.steps[props.document.steps.length - 1]?.id ?? ''
  const after = props.part.bands.reduce((most, one) => Math.max(most, one.most + 1), props.part.least)
  emit('set', {
    bands: [...props.part.bands, { least: Math.min(after, props.part.most), most: props.part.most, next }],
  })
}
</script>

<template>
  <div class="grid gap-2">
    <WordsBox label="Words" :rows="2" :value="part.text" @set="emit('set', { text: $event })" />
    <OptionRows
      v-if="part.kind === 'question'"
      :options="part.options"
      :document="document"
      @set="emit('set', { options: $event })"
    />
    <template v-else>
      <SelectBox label="Scale" :value="`${part.least}-${part.most}`" :options="RANGES" @set="range" />
      <span class="grid grid-cols-2 gap-2">
        <WordsBox
          label="At its least"
          :value="part.least_label"
          @set="emit('set', { least_label: $event })"
        />
        <WordsBox label="At its most" :value="part.most_label" @set="emit('set', { most_label: $event })" />
      </span>
      <span class="flex items-center gap-2"
        ><NumberBox
          label="Low score"
          :value="part.low"
          :least="0"
          :most="10"
          @set="emit('set', { low: $event ?? 6 })"
        />
        and below opens a follow-up</span
      >
      <fieldset class="grid gap-1.5">
        <legend class="text-sm text-ink-2">What follows by score</legend>
        <div v-for="(one, at) in part.bands" :key="at" class="flex flex-wrap items-center gap-1">
          <NumberBox
            :label="`From, of row ${at + 1}`"
            :value="one.least"
            :least="0"
            :most="10"
            @set="band(at, { least: $event ?? 0 })"
          />
          to
          <NumberBox
            :label="`To, of row ${at + 1}`"
            :value="one.most"
            :least="0"
            :most="10"
            @set="band(at, { most: $event ?? 10 })"
          />
          <button
            type="button"
            class="btn px-1.5!"
            :aria-label="`Remove row ${at + 1}`"
            @click="emit('set', { bands: part.bands.filter((_, index) => index !== at) })"
          >
            ✕
          </button>
          <SelectBox
            :label="`Where row ${at + 1} leads`"
            :value="one.next"
            :options="steps()"
            @set="band(at, { next: $event })"
          />
        </div>
        <button type="button" class="btn-link justify-self-start" @click="addBand">+ Row</button>
      </fieldset>
    </template>
  </div>
</template>
