<script setup lang="ts">
import type { Wanted } from '@/api/follow-ups'

/** Nothing on the list: because of what is wanted (`said`), or because nobody waits. */
defineProps<{ said: string; wanted: Wanted }>()
const emit = defineEmits<{ narrow: [wanted: Wanted] }>()
</script>

<template>
  <div class="sheet p-8 text-center">
    <template v-if="said">
      <p class="mb-3">There is nothing here: {{ said }}.</p>
      <span class="flex flex-wrap justify-center gap-2">
        <button
          v-if="wanted.q && wanted.state !== 'finished'"
          type="button"
          class="btn btn-main"
          @click="emit('narrow', { ...wanted, state: 'finished' })"
        >
          Look among what is finished
        </button>
        <button type="button" class="btn" @click="emit('narrow', {})">Show everything that is open</button>
      </span>
    </template>
    <template v-else>
      <p class="mb-3">Nobody is waiting. Sign-ups and questions from your site come here by themselves.</p>
      <RouterLink to="/touchpoints" class="btn">See your touchpoints</RouterLink>
    </template>
  </div>
</template>
