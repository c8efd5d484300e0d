<script setup lang="ts">
import { computed } from 'vue'
import NumberBox from './fields/NumberBox.vue'
import type { useLook } from './look'
import LookRow from './LookRow.vue'

const props = defineProps<{ look: ReturnType<typeof useLook> }>()
type Which = 'font' | 'head_font'
const FONTS: Record<string, [string, string, string]> = {
  'system/sans': ['system', 'sans', 'The device’s own'],
  'system/serif': ['system', 'serif', 'The device’s own, with serifs'],
  'system/rounded': ['system', 'rounded', 'The device’s own, rounded'],
  'system/mono': ['system', 'mono', 'The device’s own, all of one width'],
  'shipped/Figtree': ['shipped', 'Figtree', 'Figtree'],
  'shipped/Bricolage Grotesque': ['shipped', 'Bricolage Grotesque', 'Bricolage Grotesque'],
  'shipped/Literata': ['shipped', 'Literata', 'Literata'],
  'shipped/Nunito': ['shipped', 'Nunito', 'Nunito'],
}
const key = (which: Which) => {
  const font = props.look.value(which)
  return font.source === 'site' ? 'site' : `${font.source}/${font.name}`
}
const siteName = computed(() => (which: Which) => (props.look.value(which).source === 'site' ? props.look.value(which).name : null))
function choose(which: Which, wanted: string) {
  const known = FONTS[wanted]
  props.look.set(
    which,
    (known ? { source: known[0], name: known[1] } : { source: 'site', name: siteName.value(which) ?? 'Georgia' }) as never,
  )
}
function named(which: Which, event: Event) {
  const name = (event.target as HTMLInputElement).value.replace(/[^\w .,'-]/g, '').trim()
  if (name) props.look.set(which, { source: 'site', name })
}
const NUMBERS = [
  ['size', 'Text size', 12, 24, 1],
  ['head_size', 'Headline size', 14, 72, 1],
  ['weight', 'Text weight', 300, 800, 100],
  ['head_weight', 'Headline weight', 300, 900, 100],
] as const
</script>

<template>
  <div class="grid gap-1.5">
    <LookRow
      v-for="[which, name] in [
        ['font', 'Text'],
        ['head_font', 'Headlines'],
      ] as const"
      :key="which"
      :name="name"
      :departs="look.departs(which)"
      :from="look.from.value"
      @back="look.back(which)"
    >
      <select
        class="input"
        :aria-label="`Font of ${name.toLowerCase()}`"
        :value="key(which)"
        @change="choose(which, ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="(font, id) in FONTS" :key="id" :value="id">{{ font[2] }}</option>
        <option value="site">The site’s own, by name</option>
      </select>
      <input
        v-if="siteName(which) !== null"
        class="input mt-1"
        :aria-label="`Name of the site’s font for ${name.toLowerCase()}`"
        :value="siteName(which)"
        @change="named(which, $event)"
      />
    </LookRow>
    <LookRow
      v-for="[which, name, least, most, step] in NUMBERS"
      :key="which"
      :name="name"
      :departs="look.departs(which)"
      :from="look.from.value"
      @back="look.back(which)"
    >
      <NumberBox :label="name" :value="look.value(which)" :least="least" :most="most" :step="step" @set="look.set(which, $event)" />
    </LookRow>
  </div>
</template>
