<script setup lang="ts">
import type { Schemas } from '@/api/client'

defineProps<{ findings: Schemas['FindingOut'][] }>()
const emit = defineEmits<{ go: [part: string] }>()
</script>

<template>
  <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
    <strong>Ready check</strong>
    <span v-if="!findings.length" class="text-moss">✓ nothing stops it</span>
    <template v-for="finding in findings" :key="finding.message">
      <RouterLink
        v-if="finding.place === 'snippet' || finding.place === 'sites'"
        to="/business"
        :class="finding.level === 'stops' ? 'text-rust' : 'text-brass'"
        class="underline"
        >{{ finding.level === 'stops' ? '✕' : '▲' }} {{ finding.message }}</RouterLink
      >
      <button
        v-else
        type="button"
        :class="finding.level === 'stops' ? 'text-rust' : 'text-brass'"
        class="underline"
        @click="emit('go', finding.place)"
      >
        {{ finding.level === 'stops' ? '✕' : '▲' }} {{ finding.message }}
      </button>
    </template>
  </p>
</template>
