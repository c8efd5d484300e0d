<script setup lang="ts">
import { computed, watch } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { looksRight, putStepsAway, useFirstSteps } from '@/api/first-steps'

/** The few things that stand between a new owner and the first lead; one of them is next. */
const queries = useQueryClient()
const { data: steps } = useFirstSteps()
const next = computed(() => steps.value?.find((one) => !one.done)?.key)
const fresh = () => queries.invalidateQueries()
// What was done elsewhere shows on the list and the day line at once.
watch(
  () => steps.value?.filter((one) => one.done).length,
  (now, before) => before !== undefined && now !== before && fresh(),
)
const outside = (go: string) => /^https?:/.test(go)
</script>

<template>
  <section v-if="steps?.length" class="sheet mb-4 p-5" aria-labelledby="first-steps">
    <div class="mb-2 flex items-baseline gap-3">
      <h2 id="first-steps">Until the first lead</h2>
      <span class="text-ink-2">{{ steps.filter((one) => one.done).length }} of {{ steps.length }}</span>
      <button type="button" class="btn-link ml-auto text-sm" @click="putStepsAway().then(fresh)">
        Put this away
      </button>
    </div>
    <ol class="grid">
      <li
        v-for="one in steps"
        :key="one.key"
        class="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line-2 py-2.5"
      >
        <span class="w-6 text-center" :class="one.done ? 'text-moss' : 'text-ink-3'" aria-hidden="true">{{
          one.done ? '✓' : '○'
        }}</span>
        <span class="min-w-0 flex-1">
          <strong :class="{ 'text-ink-2': one.done }">{{ one.name }}</strong><span
            v-if="one.done"
            class="sr-only"
          >
            (done)</span
          >
          <span v-if="!one.done" class="block text-ink-2">{{ one.how }}</span>
        </span>
        <template v-if="one.key === next">
          <a v-if="outside(one.go)" :href="one.go" target="_blank" rel="noopener" class="btn btn-main">{{
            one.button
          }}</a>
          <RouterLink v-else-if="one.go" :to="one.go" class="btn btn-main">{{ one.button }}</RouterLink>
          <button v-if="one.key === 'hours'" type="button" class="btn" @click="looksRight().then(fresh)">
            Nine to five is right
          </button>
        </template>
      </li>
    </ol>
  </section>
</template>
