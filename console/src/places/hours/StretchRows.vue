<script setup lang="ts">
import type { Stretch } from '@/api/hours'

defineProps<{ stretch: Stretch; label: string }>()
defineEmits<{ remove: [] }>()
</script>

<template>
  <div class="mb-1 flex items-center gap-2">
    <!-- Plain text, since a time field knows no 24:00. -->
    <!-- eslint-disable-next-line vue/no-mutating-props -- the row is a view on the form's own draft -->
    <input v-model.trim="stretch.from" class="input w-20!" :aria-label="`${label} from`" inputmode="numeric" maxlength="5" />
    <span aria-hidden="true">–</span>
    <!-- eslint-disable-next-line vue/no-mutating-props -- the row is a view on the form's own draft -->
    <input v-model.trim="stretch.to" class="input w-20!" :aria-label="`${label} to`" inputmode="numeric" maxlength="5" />
    <span v-if="stretch.to <= stretch.from" class="text-sm text-ink-2">into the next day</span>
    <button
      type="button"
      class="btn-link text-sm"
      :aria-label="`Remove ${stretch.from} to ${stretch.to} on ${label}`"
      @click="$emit('remove')"
    >
      remove
    </button>
  </div>
</template>
