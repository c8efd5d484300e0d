<script setup lang="ts">
import { choices } from '@/api/parts.json'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import type { LookHandle } from './look'
import LookRow from './LookRow.vue'

/** Spacing, corners, edge and shadow, and how it comes and goes. */
defineProps<{ look: LookHandle }>()
const SHADOWS = choices['look.shadow']
const MOTIONS = choices['look.arrival']
const GOINGS = choices['look.going']
</script>

<template>
  <div class="grid gap-1.5">
    <LookRow
      v-for="[name, label, most] in [
        ['spacing', 'Spacing', 80],
        ['corners', 'Corners', 60],
        ['border', 'Edge', 20],
      ] as const"
      :key="name"
      :name="label"
      :departs="look.departs(name)"
      :from="look.from.value"
      @back="look.back(name)"
    >
      <NumberBox
        :label="label"
        :value="look.value(name)"
        :least="name === 'spacing' ? 4 : 0"
        :most="most"
        @set="look.set(name, $event)"
      />
      px
    </LookRow>
    <LookRow
      name="Shadow"
      :departs="look.departs('shadow')"
      :from="look.from.value"
      @back="look.back('shadow')"
    >
      <SelectBox
        label="Shadow"
        :value="look.value('shadow')"
        :options="SHADOWS"
        @set="look.set('shadow', $event)"
      />
    </LookRow>
    <LookRow
      name="Comes"
      :departs="look.departs('arrival')"
      :from="look.from.value"
      @back="look.back('arrival')"
    >
      <SelectBox
        label="How it comes"
        :value="look.value('arrival')"
        :options="MOTIONS"
        @set="look.set('arrival', $event)"
      />
    </LookRow>
    <LookRow name="Goes" :departs="look.departs('going')" :from="look.from.value" @back="look.back('going')">
      <SelectBox
        label="How it goes"
        :value="look.value('going')"
        :options="GOINGS"
        @set="look.set('going', $event)"
      />
    </LookRow>
  </div>
</template>
