<script setup lang="ts">
import { useSites } from '@/api/sites'
import type { Draft } from '@/api/touchpoints'
import DoesForm from './fields/DoesForm.vue'
import SelectBox from './fields/SelectBox.vue'
import TickBox from './fields/TickBox.vue'
import WordsBox from './fields/WordsBox.vue'
import type { Change, Does, TouchpointDocument } from './types'

/** What belongs to the whole: its sites, the button itself, its spot in the page. */
defineProps<{ document: TouchpointDocument; draft: Draft; wrong: Record<string, string> }>()
const emit = defineEmits<{ change: Change; site: [id: number, on: boolean] }>()
const { data: sites } = useSites()
const SIGNS = {
  none: 'no sign',
  question: 'a question mark',
  phone: 'a telephone',
  mail: 'an envelope',
  message: 'a speech bubble',
  gift: 'a parcel',
}
const WHERE = { before: 'before it', after: 'after it', inside: 'at its end' }
const PLAIN: Does = { action: 'phone', next: null, address: '', asset: null, touchpoint: '', spot: '', tab: 'same', goal: true, href: '' }
</script>

<template>
  <div class="grid gap-2">
    <template v-if="document.stance === 'button'">
      <WordsBox
        label="Words on the button"
        :value="document.face.label"
        @set="emit('change', 'face.label', (d) => (d.face.label = $event))"
      />
      <SelectBox
        label="Sign on the button"
        :value="document.face.sign"
        :options="SIGNS"
        @set="emit('change', 'face.sign', (d) => (d.face.sign = $event as never))"
      />
      <TickBox :value="document.face.does !== null" @set="emit('change', 'face.does', (d) => (d.face.does = $event ? PLAIN : null))"
        >does something at once, instead of opening a card</TickBox
      >
      <DoesForm
        v-if="document.face.does"
        :does="document.face.does"
        :document="document"
        :without="['send', 'step', 'back', 'close']"
        @set="emit('change', 'face.does', (d) => (d.face.does = $event))"
      />
    </template>
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
        @set="emit('change', 'spot.where', (d) => (d.spot.where = $event as never))"
      />
    </template>
    <fieldset v-if="sites && sites.length > 0" class="grid gap-1">
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
  </div>
</template>
