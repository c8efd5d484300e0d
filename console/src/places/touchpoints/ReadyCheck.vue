<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { ELSEWHERE } from './going'

/** What stops it, what to look at and what is good to know, each with a way to the place to fix it. */
const props = defineProps<{ findings: Schemas['FindingOut'][] }>()
const emit = defineEmits<{ go: [place: string] }>()
const SIGNS: Record<string, string> = { stops: '✕', look: '▲', fine: '·' }
const COLOURS: Record<string, string> = { stops: 'text-rust', look: 'text-brass', fine: 'text-ink-2' }
const clear = computed(() => props.findings.every((one) => one.level !== 'stops'))
</script>

<template>
  <p
    class="mt-2 flex h-[3.25rem] flex-wrap content-start items-center gap-x-4 gap-y-1 overflow-y-auto"
    role="group"
    aria-label="Ready check"
  >
    <strong>Ready check</strong>
    <span v-if="clear" class="text-moss">✓ nothing stops it</span>
    <template v-for="finding in findings" :key="finding.message">
      <RouterLink
        v-if="ELSEWHERE[finding.place]"
        :to="ELSEWHERE[finding.place]!"
        :class="COLOURS[finding.level]"
        class="underline"
        >{{ SIGNS[finding.level] }} {{ finding.message }}</RouterLink
      >
      <button
        v-else
        type="button"
        :class="COLOURS[finding.level]"
        class="text-left underline"
        @click="emit('go', finding.place)"
      >
        {{ SIGNS[finding.level] }} {{ finding.message }}
      </button>
    </template>
    <slot />
  </p>
</template>
