<script setup lang="ts">
import { provide } from 'vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import type { Span } from './sentence'

/** A length of time: a number and its unit. */
const props = defineProps<{ label: string; span: Span }>()
const emit = defineEmits<{ set: [span: Span] }>()
// The words around it name it.
provide('named', true)
const UNITS = { minutes: 'minutes', hours: 'hours', days: 'days' }
</script>

<template>
  <span class="inline-flex items-center gap-1.5 whitespace-nowrap">
    <NumberBox
      :label="`${label}: how many`"
      :value="span.n"
      :least="1"
      :most="3650"
      @set="emit('set', { ...props.span, n: $event ?? 1 })"
    />
    <SelectBox
      :label="`${label}: unit`"
      :value="span.unit"
      :options="UNITS"
      @set="emit('set', { ...props.span, unit: $event as Span['unit'] })"
    />
  </span>
</template>
