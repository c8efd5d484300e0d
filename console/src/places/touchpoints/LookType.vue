<script setup lang="ts">
import FontChoice from '@/parts/fields/FontChoice.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import type { LookHandle } from './look'
import LookRow from './LookRow.vue'

defineProps<{ look: LookHandle }>()
const NUMBERS = [
  ['size', 'Text size', 12, 24, 1],
  ['head_size', 'Headline size', 14, 72, 1],
  ['button_size', 'Button size', 12, 28, 1],
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
        ['button_font', 'Buttons'],
      ] as const"
      :key="which"
      :name="name"
      :departs="look.departs(which)"
      :from="look.from.value"
      @back="look.back(which)"
    >
      <FontChoice
        :label="`Font of ${name.toLowerCase()}`"
        :font="look.value(which)"
        @set="look.set(which, $event)"
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
      <NumberBox
        :label="name"
        :value="look.value(which)"
        :least="least"
        :most="most"
        :step="step"
        @set="look.set(which, $event)"
      />
    </LookRow>
  </div>
</template>
