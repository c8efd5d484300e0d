<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { computed } from 'vue'
import { useChannels } from '@/api/channels'
import type { PartOf } from '@/api/document'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'

/** Which ways to reach the business stand here, and how. */
const props = defineProps<{ part: PartOf<'channels'> }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const { data: day } = useChannels()
const WAYS = choices.as
const named = computed(() => (props.part.channels === 'all' ? [] : (props.part.channels as string[])))
const all = computed(() => props.part.channels === 'all')
function toggle(id: string) {
  const every = day.value?.channels.map((one) => one.public_id) ?? []
  const had = all.value ? every : named.value
  const kept = had.includes(id)
    ? had.filter((one) => one !== id)
    : every.filter((one) => had.includes(one) || one === id)
  emit('set', { channels: kept })
}
</script>

<template>
  <TickBox
    :value="all"
    @set="emit('set', { channels: $event ? 'all' : (day?.channels.map((one) => one.public_id) ?? []) })"
    >all of them, new ones too</TickBox
  >
  <fieldset v-if="!all" class="grid gap-1">
    <legend class="text-sm text-ink-2">These</legend>
    <TickBox
      v-for="one in day?.channels"
      :key="one.id"
      :value="named.includes(one.public_id)"
      @set="toggle(one.public_id)"
      >{{ one.document.label }}</TickBox
    >
  </fieldset>
  <SelectBox label="How they stand" :value="part.as" :options="WAYS" @set="emit('set', { as: $event })" />
  <TickBox :value="part.people" @set="emit('set', { people: $event })"
    >those behind them can be chosen</TickBox
  >
  <RouterLink class="btn-link text-sm" to="/hours/channels">{{
    day && !day.channels.length ? 'There are none yet: make the first' : 'Your channels'
  }}</RouterLink>
</template>
