<script setup lang="ts">
import { useRoom } from '@/api/copies'
import ErrorBox from '@/parts/ErrorBox.vue'

/** How much room there is, said before it is met. */
const { data: room, error } = useRoom()
const share = (used: number, most: number) => Math.min(100, (used / most) * 100)
</script>

<template>
  <article id="room" class="sheet p-5" aria-labelledby="room-title">
    <h2 id="room-title" class="mb-1">Room</h2>
    <p class="mb-2 text-sm text-ink-2">
      Whoever runs Intavo says how much there may be of each. What visitors write is taken in any case.
    </p>
    <ErrorBox :error="error" />
    <ul class="grid gap-x-6 gap-y-2 sm:grid-cols-2">
      <li v-for="one in room" :key="one.kind" :class="one.near ? 'font-semibold text-rust' : ''">
        {{ one.words }}
        <span v-if="one.most" class="mt-1 block h-1 rounded bg-line-2" aria-hidden="true">
          <span
            class="block h-1 rounded"
            :class="one.near ? 'bg-rust' : 'bg-petrol'"
            :style="{ width: `${share(one.used, one.most)}%` }"
          />
        </span>
      </li>
    </ul>
  </article>
</template>
