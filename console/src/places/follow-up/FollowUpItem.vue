<script setup lang="ts">
import { KINDS } from '@/lib/names'
import { computed } from 'vue'
import type { Item } from '@/api/follow-ups'
import { saidLength, saidTime } from '@/lib/time'

const props = defineProps<{
  item: Item
  selected: boolean
  chosen?: boolean
  begun?: boolean
  zone: string
  now: Date
}>()
defineEmits<{ pick: [event: MouseEvent] }>()
const tone = computed(() => {
  if (props.item.state !== 'for-us') return 'text-ink-3'
  return {
    late: 'text-rust',
    'before-closing': 'text-brass',
    'next-opening': 'text-petrol',
    later: 'text-petrol',
    'any-time': 'text-ink-3',
  }[props.item.lane]
})
const when = computed(() => {
  const { item } = props
  if (item.state === 'finished') return 'finished'
  if (item.state === 'put-off' && item.back_at) return `back ${saidTime(item.back_at, props.now, props.zone)}`
  if (item.state === 'for-them')
    return item.back_at ? `their turn till ${saidTime(item.back_at, props.now, props.zone)}` : 'their turn'
  if (!item.due) return 'no set time'
  if (item.lane === 'late') return item.late_minutes ? `${saidLength(item.late_minutes)} late` : 'late'
  return item.lane === 'before-closing'
    ? `in ${saidLength(item.left_minutes)}`
    : saidTime(item.due, props.now, props.zone)
})
const more = computed(() => {
  const { item } = props
  if (!item.due || item.state !== 'for-us') return ''
  if (item.lane === 'late') return `was due ${saidTime(item.due, props.now, props.zone)}`
  return item.lane === 'before-closing'
    ? saidTime(item.due, props.now, props.zone)
    : `${saidLength(item.left_minutes)} of open time left`
})
const place = computed(() => {
  try {
    return new URL(props.item.page).pathname
  } catch {
    return ''
  }
})
</script>

<template>
  <li class="relative min-w-0">
    <span
      class="diamond absolute top-6 -left-[21.5px]"
      :class="[
        tone,
        {
          'diamond-full': ['late', 'before-closing'].includes(item.lane) && item.state === 'for-us',
          'bg-fog': !['late', 'before-closing'].includes(item.lane),
        },
      ]"
      aria-hidden="true"
    />
    <RouterLink
      :to="{ path: `/follow-up/${item.id}`, query: $route.query }"
      :aria-label="chosen ? `Chosen: ${item.called}` : undefined"
      :data-id="item.id"
      :aria-current="selected"
      class="sheet block px-3 py-2 hover:border-ink-3"
      :class="{ 'border-l-4 !border-petrol !pl-[9px]': selected, 'bg-petrol-tint!': chosen }"
      @click.capture="($event.ctrlKey || $event.metaKey || $event.shiftKey) && $emit('pick', $event)"
    >
      <span class="flex justify-between gap-4">
        <span class="min-w-0 truncate"
          ><strong dir="auto">{{ item.called }}</strong>
          <span class="ml-1 text-sm text-ink-2"
            >{{ KINDS[item.kind as keyof typeof KINDS] }} · {{ item.touchpoint || item.via
            }}<template v-if="place"> · {{ place }}</template></span
          ></span
        >
        <span class="shrink-0 font-semibold" :class="tone">{{ when }}</span>
      </span>
      <span class="flex justify-between gap-4 text-ink-2">
        <span class="min-w-0 truncate" dir="auto"
          ><span v-if="item.subject" class="font-semibold">{{ item.subject }} · </span
          >{{ item.kind === 'sign-up' ? item.excerpt : `“${item.excerpt}”` }}</span
        >
        <span class="flex shrink-0 items-center gap-2 text-sm">
          <span class="max-lg:hidden">{{ more }}</span>
          <span v-if="begun" class="text-brass">answer begun</span>
          <span v-if="item.initials" class="chip" :title="`Given to ${item.member}`">{{
            item.initials
          }}</span>
        </span>
      </span>
    </RouterLink>
  </li>
</template>
