<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue'
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useAtCounter, useCounter, useMe } from '@/api/me'
import { useClock } from '@/lib/clock'
import { fromLocal } from '@/lib/local'
import { useNotices } from '@/lib/notices'
import { clockTime } from '@/lib/time'
import WhenBox from '@/parts/WhenBox.vue'
import MenuRow from './MenuRow.vue'

/** Whether one is at the counter, until when one is away, and who else is there. */
const { data: me } = useMe()
const { data: everybody } = useAtCounter()
const counter = useCounter()
const notices = useNotices()
const { zone } = useClock()
const time = ref<string | null>(null)
const WAYS: [Schemas['CounterIn']['until'], string][] = [
  ['15-minutes', 'for 15 minutes'],
  ['1-hour', 'for an hour'],
  ['next-opening', 'until we open next'],
  ['until-said', 'until I say so'],
]

function go(body: Schemas['CounterIn']) {
  counter.mutate(body, { onError: (error) => notices.say(error.message, { bad: true }) })
}
function until() {
  const at = fromLocal(time.value ?? '', zone.value)
  if (at) go({ away: true, until: 'time', time: at })
  else notices.say('Say until when, such as 5 pm.', { bad: true })
}
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton
      class="btn"
      :class="me?.member?.away ? 'hatch text-ink-2' : 'border-moss text-moss'"
      :disabled="counter.isPending.value"
      :title="
        me?.member?.away
          ? 'Visitors are told who is back, and when'
          : 'Visitors are told that somebody is here'
      "
    >
      <span class="rounded bg-sheet px-1"
        ><span aria-hidden="true">{{ me?.member?.away ? '○' : '●' }}</span>
        {{
          me?.member?.away
            ? me.member.back_at
              ? `Back ${clockTime(me.member.back_at, zone)}`
              : 'Away'
            : 'At the counter'
        }}</span
      >
    </MenuButton>
    <MenuItems class="pop absolute right-0 mt-1 w-64">
      <MenuRow v-if="me?.member?.away" class="font-semibold" @click="go({ away: false, until: 'until-said' })"
        >I am at the counter</MenuRow
      >
      <p class="px-2 pt-1 text-sm text-ink-2">Away from the counter</p>
      <MenuRow v-for="[way, words] in WAYS" :key="way" @click="go({ away: true, until: way })">{{
        words
      }}</MenuRow>
      <form class="flex items-end gap-2 px-2 py-1.5" novalidate @submit.prevent="until" @keydown.stop>
        <label class="grid grow text-sm text-ink-2"
          >until<WhenBox :value="time" kind="both" @set="time = $event"
        /></label>
        <button class="btn">Set</button>
      </form>
      <ul
        v-if="(everybody?.length ?? 0) > 1"
        class="mt-1 border-t border-line-2 pt-2"
        aria-label="Who is at the counter"
      >
        <li v-for="one in everybody" :key="one.member" class="flex justify-between gap-2 px-2 py-0.5 text-sm">
          <span>{{ one.name }}</span>
          <span :class="one.away ? 'text-ink-2' : 'text-moss'">{{
            one.away ? (one.back ? `back ${one.back}` : 'away') : 'there'
          }}</span>
        </li>
      </ul>
    </MenuItems>
  </Menu>
</template>
