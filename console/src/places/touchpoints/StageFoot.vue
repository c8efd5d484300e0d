<script setup lang="ts">
import { computed } from 'vue'
import type { Draft } from '@/api/touchpoints'
import { COLOURS, type Role } from './look'

/**
 * What can be read and what is covered, said under the stage; the nearest shade that passes is a click away.
 */
const props = defineProps<{ readings: Draft['readings']; share: number | null }>()
const emit = defineEmits<{ use: [reading: Draft['readings'][number]]; go: [part: string] }>()
const bad = computed(() => {
  const seen = new Set<string>()
  return props.readings.filter(
    (one) => !one.passes && !seen.has(one.what + one.role) && seen.add(one.what + one.role),
  )
})
const best = computed(() => props.readings.filter((one) => one.passes && !one.phone).slice(0, 2))
const ratio = (one: Draft['readings'][number]) => `${one.ratio.toFixed(1)} : 1`
</script>

<template>
  <p
    class="flex h-14 shrink-0 flex-wrap content-start items-center gap-x-4 gap-y-1 overflow-y-auto border-t border-line bg-line-2 px-4 py-1.5 text-sm"
    aria-label="Legibility"
  >
    <span v-if="share !== null"
      >Phone: covers <strong>{{ Math.round(share * 100) }} %</strong> of the screen</span
    >
    <span v-for="one in best" :key="one.part + one.what"
      >{{ one.what }} <strong>{{ ratio(one) }}</strong></span
    >
    <span v-for="one in bad" :key="one.part + one.what + one.phone" class="text-rust">
      <button type="button" class="font-semibold underline" @click="emit('go', one.part)">
        {{ one.what }} {{ ratio(one) }}
      </button>
      <template v-if="one.better">
        — the nearest shade that passes:
        <button type="button" class="underline" @click="emit('use', one)">
          <span
            class="mr-1 inline-block size-3 rounded-sm border border-line align-middle"
            :style="{ background: one.better }"
          />use
          {{ one.better }}
        </button>
        <template v-if="one.behind_better && one.behind_role">
          , or
          <button
            type="button"
            class="underline"
            @click="emit('use', { ...one, role: one.behind_role, better: one.behind_better })"
          >
            <span
              class="mr-1 inline-block size-3 rounded-sm border border-line align-middle"
              :style="{ background: one.behind_better }"
            />{{ one.behind_better }} for {{ COLOURS[one.behind_role as Role].toLowerCase() }}
          </button>
        </template>
      </template>
    </span>
    <span v-if="!bad.length && readings.length" class="text-moss">✓ everything can be read</span>
  </p>
</template>
