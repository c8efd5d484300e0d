<script setup lang="ts">
import { useOnline } from '@vueuse/core'
import { onOurs } from '@/lib/clock'
import { doAnyway, throwAway, waiting } from '@/lib/outbox'
import { saidTime } from '@/lib/time'

/** That there is no network, how old what is shown is, and what waits for one or could not be done. */
defineProps<{ now: Date; zone: string; asOf: number }>()
const online = useOnline()
</script>

<template>
  <div
    v-if="!online || waiting.length"
    class="mb-3 grid grid-cols-1 gap-2 rounded-md border border-brass bg-brass-tint px-3 py-2"
    role="status"
  >
    <p v-if="!online">
      <strong>No connection.</strong>
      <template v-if="asOf">
        The list is as it was {{ saidTime(onOurs(asOf, now), now, zone) }}; what you do is kept here and goes
        out later.</template
      >
    </p>
    <ul v-if="waiting.length" class="grid grid-cols-1 gap-1.5" aria-label="Done here, not sent yet">
      <li v-for="one in waiting" :key="one.once" class="flex min-w-0 flex-wrap items-baseline gap-x-2">
        <span class="min-w-0 flex-1 truncate"
          ><RouterLink
            class="btn-link"
            dir="auto"
            :to="{ path: `/follow-up/${one.id}`, query: $route.query }"
            >{{ one.called }}</RouterLink
          >
          <span class="text-ink-2">
            {{ saidTime(onOurs(one.at, now), now, zone) }} · {{ one.words }}</span
          ></span
        >
        <span v-if="!one.wrong" class="text-sm text-brass">{{ online ? 'being sent …' : 'waits' }}</span>
        <span v-else class="w-full text-rust"
          >{{ one.wrong }}
          <button v-if="one.changed" type="button" class="btn ml-1" @click="doAnyway(one.once)">
            Do it all the same
          </button>
          <button type="button" class="btn ml-1" @click="throwAway(one.once)">Throw it away</button></span
        >
      </li>
    </ul>
  </div>
</template>
