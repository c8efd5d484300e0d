<script setup lang="ts">
import NumberBox from '@/parts/fields/NumberBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import type { Show } from './sentence'
import SpanBox from './SpanBox.vue'

/** How often the same visitor gets it. */
const props = defineProps<{ show: Show }>()
const emit = defineEmits<{ set: [patch: Partial<Show>]; forget: [] }>()
const EVERY = {
  moment: 'each time its moment comes, also again on the same page',
  page: 'on every page view',
  visit: 'once a visit',
  span: 'once in',
} as const
type Often = Show['how_often']
const often = (patch: Partial<Often>) => emit('set', { how_often: { ...props.show.how_often, ...patch } })
</script>

<template>
  <div class="grid gap-2">
    <label v-for="(words, every) in EVERY" :key="every" class="flex items-center gap-2">
      <input type="radio" name="every" :checked="show.how_often.every === every" @change="often({ every })" />
      {{ words }}
      <SpanBox
        v-if="every === 'span'"
        label="Once in"
        :span="show.how_often.span"
        @set="often({ every: 'span', span: $event })"
      />
    </label>
    <span class="flex items-center gap-2"
      >at most
      <NumberBox
        label="At most so many times ever"
        :value="show.how_often.most"
        :least="1"
        :most="10000"
        empty="any"
        @set="often({ most: $event })"
      />
      times ever</span
    >
    <span class="flex flex-wrap items-center gap-2">
      <TickBox
        :value="!!show.how_often.after_closed"
        @set="often({ after_closed: $event ? { n: 7, unit: 'days' } : null })"
        >once closed, not for</TickBox
      >
      <SpanBox
        v-if="show.how_often.after_closed"
        label="Not for"
        :span="show.how_often.after_closed"
        @set="often({ after_closed: $event })"
      />
    </span>
    <TickBox :value="show.alone" @set="emit('set', { alone: $event })"
      >only if nothing else has interrupted their visit</TickBox
    >
    <p class="border-t border-line-2 pt-2">
      <button type="button" class="btn" @click="emit('forget')">Forget past showings</button>
      <span class="mt-1 block text-sm text-ink-2"
        >Everybody may then get it again, as if they had never seen it.</span
      >
    </p>
  </div>
</template>
