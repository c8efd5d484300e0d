<script setup lang="ts">
import type { Trial } from '@/api/imports'
import { saidCount } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'

/** What taking a file in would do, in all and row by row. */
defineProps<{ trial: Trial | undefined; error: Error | null; trying: boolean; free: boolean }>()
const emit = defineEmits<{ take: []; forget: [] }>()
const WHAT: Record<string, string> = { new: 'new', joining: 'joins', refused: 'refused' }
</script>

<template>
  <section class="sheet mb-4 p-4" aria-labelledby="trial-title" :aria-busy="trying">
    <h2 id="trial-title" class="mb-2">What taking it in would do</h2>
    <ErrorBox :error="error" />
    <template v-if="trial">
      <p class="mb-2">
        <strong>{{ saidCount(trial.new) }}</strong> new, <strong>{{ saidCount(trial.joining) }}</strong> join
        somebody who is on your list or in a row above,
        <strong :class="{ 'text-rust': trial.refused }">{{ saidCount(trial.refused) }}</strong> refused;
        <strong>{{ saidCount(trial.agreed) }}</strong> of them agreed to news.
        <span v-if="!trial.whole" class="text-ink-2"
          >(The first {{ saidCount(trial.rows) }} rows were tried.)</span
        >
      </p>
      <ul v-if="trial.reasons.length" class="mb-2 list-disc pl-5 text-rust">
        <li v-for="one in trial.reasons" :key="one.why">{{ saidCount(one.rows) }} × {{ one.why }}</li>
      </ul>
      <details class="mb-3">
        <summary class="font-semibold">Row by row</summary>
        <table class="mt-1 w-full border-collapse text-sm">
          <tbody>
            <tr v-for="one in trial.lines" :key="one.number" class="border-t border-line-2">
              <td class="w-16 py-1 text-ink-2">{{ one.number }}</td>
              <td
                class="w-20 py-1 font-semibold"
                :class="one.what === 'refused' ? 'text-rust' : one.what === 'new' ? 'text-moss' : ''"
              >
                {{ WHAT[one.what] }}
              </td>
              <td class="py-1 break-all" dir="auto">{{ one.words }}</td>
            </tr>
          </tbody>
        </table>
      </details>
      <div class="flex flex-wrap gap-2">
        <button
          type="button"
          class="btn btn-main"
          :disabled="!free || trying || !(trial.new + trial.joining)"
          @click="emit('take')"
        >
          {{ trial.whole ? `Take ${saidCount(trial.new + trial.joining)} in` : 'Take all of them in' }}
        </button>
        <button type="button" class="btn" @click="emit('forget')">Forget this file</button>
      </div>
    </template>
    <p v-else-if="!error" role="status">Trying it …</p>
  </section>
</template>
