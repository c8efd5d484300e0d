<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { Failure } from '@/api/client'

/** Two have changed the same: whose is kept is for whoever comes second to say. Of another error the slot speaks. */
const props = defineProps<{ error: Error | null }>()
const emit = defineEmits<{ mine: []; theirs: [] }>()
const queries = useQueryClient()
const clash = computed(() => props.error instanceof Failure && props.error.status === 409)
/** What stands there may not have been read here yet. */
function theirs() {
  emit('theirs')
  void queries.invalidateQueries()
}
</script>

<template>
  <div v-if="clash" class="my-2 rounded-md bg-brass-tint px-3 py-2" role="alert">
    <p class="font-semibold">{{ error?.message }}</p>
    <p class="mt-2 flex flex-wrap gap-2">
      <button type="button" class="btn" @click="emit('mine')">Save mine in its place</button>
      <button type="button" class="btn" @click="theirs">Take what stands there</button>
    </p>
  </div>
  <slot v-else />
</template>
