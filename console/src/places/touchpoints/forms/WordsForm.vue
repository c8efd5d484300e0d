<script setup lang="ts">
import { choices } from '@/api/parts.json'
import ColourBox from '@/parts/fields/ColourBox.vue'
import RichBox from '@/parts/fields/RichBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import { runsToHtml } from '@/parts/fields/runs'
import type { PartOf } from '@/api/document'

const props = defineProps<{ part: PartOf<'headline'> | PartOf<'text'> }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const SLOTS = { first_name: 'first name' }
const SIZES = choices.size
const ALIGNS = choices.align

/** The second wording begins as the first with the name put before it. */
function twoWordings(wanted: boolean) {
  const { part } = props
  if (part.kind === 'headline')
    emit('set', {
      known: wanted
        ? [{ slot: 'first_name' }, `, ${part.text.charAt(0).toLowerCase()}${part.text.slice(1)}`]
        : [],
    })
  else
    emit('set', {
      known: wanted
        ? part.html.replace(/^<p>/, '<p><span data-slot="first_name">first name</span>, ') || '<p></p>'
        : '',
    })
}
</script>

<template>
  <div class="grid gap-2">
    <template v-if="part.kind === 'headline'">
      <WordsBox label="Words" :rows="2" :value="part.text" @set="emit('set', { text: $event })" />
      <div v-if="part.known.length">
        <p class="text-sm text-ink-2">Where we know their name</p>
        <RichBox
          label="Words where the name is known"
          plain
          :html="runsToHtml(part.known)"
          :slots="SLOTS"
          @runs="emit('set', { known: $event })"
        />
      </div>
    </template>
    <template v-else>
      <RichBox label="Text" :html="part.html" @html="emit('set', { html: $event })" />
      <div v-if="part.known">
        <p class="text-sm text-ink-2">Where we know their name</p>
        <RichBox
          label="Text where the name is known"
          :html="part.known"
          :slots="SLOTS"
          @html="emit('set', { known: $event })"
        />
      </div>
    </template>
    <TickBox :value="part.known.length > 0" @set="twoWordings"
      >another wording where we know their name</TickBox
    >
    <span class="grid grid-cols-2 gap-2">
      <SelectBox label="Size" :value="part.size" :options="SIZES" @set="emit('set', { size: $event })" />
      <SelectBox
        label="Where in the line"
        :value="part.align"
        :options="ALIGNS"
        @set="emit('set', { align: $event })"
      />
    </span>
    <span class="flex items-center gap-2">
      <TickBox :value="part.colour !== null" @set="emit('set', { colour: $event ? '#1a2326' : null })"
        >own colour</TickBox
      >
      <ColourBox
        v-if="part.colour"
        label="Colour of these words"
        :value="part.colour"
        @set="emit('set', { colour: $event })"
      />
    </span>
  </div>
</template>
