<script setup lang="ts">
import type { Item } from '@/api/follow-ups'
import FollowUpItem from './FollowUpItem.vue'

/** Follow-ups one below the other, the one that is open and those that are chosen marked. */
defineProps<{
  items: Item[]
  selected: number | null
  picked: Set<number>
  begun: Set<number>
  zone: string
  now: Date
}>()
const emit = defineEmits<{ pick: [event: MouseEvent, id: number] }>()
</script>

<template>
  <ul class="grid grid-cols-1 gap-1.5">
    <FollowUpItem
      v-for="item in items"
      :key="item.id"
      :item="item"
      :selected="item.id === selected"
      :begun="begun.has(item.id)"
      :chosen="picked.has(item.id)"
      :zone="zone"
      :now="now"
      @pick="emit('pick', $event, item.id)"
    />
  </ul>
</template>
