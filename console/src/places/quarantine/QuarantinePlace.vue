<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { release, throwOut, useQuarantine, type Quarantined } from '@/api/quarantine'
import { useClock } from '@/lib/clock'
import { useNotices } from '@/lib/notices'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'

const { data: rows, error, refetch } = useQuarantine()
const { zone, now } = useClock()
const queries = useQueryClient()
const notices = useNotices()
const WHY: Record<string, string> = {
  trap: 'filled in a field that people do not see',
  'too fast': 'was sent faster than anybody types',
  'no work': 'came without the piece of work',
}
async function settle(row: Quarantined, work: (id: number) => Promise<void>, said: string) {
  try {
    await work(row.id)
    notices.say(said)
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
  await queries.invalidateQueries()
}
const path = (url: string) => url.replace(/^https?:\/\/[^/]+/, '') || '/'
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <div class="mb-1 flex items-center gap-3">
      <RouterLink to="/follow-up" class="btn px-2!" aria-label="Back to Follow-up">←</RouterLink>
      <h1>Set aside as spam</h1>
    </div>
    <p class="mb-4 text-ink-2">
      Nobody was told and nothing was given. What you release goes on the list as of the time it came.
    </p>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!rows && !error" class="sheet h-48 opacity-60" aria-busy="true" />
    <p v-if="rows && !rows.length" class="sheet p-8 text-center">
      Nothing is set aside. <RouterLink to="/follow-up" class="btn-link">Back to the list</RouterLink>
    </p>
    <ul class="grid max-w-4xl gap-2">
      <li v-for="row in rows" :key="row.id" class="sheet flex flex-wrap items-start gap-4 p-4">
        <div class="min-w-0 flex-1">
          <p class="font-semibold">
            {{ row.touchpoint }}
            <span class="font-normal text-ink-2"
              >· {{ saidTime(row.received_at, now, zone) }} · {{ path(row.page) }}</span
            >
          </p>
          <dl class="mt-1 grid grid-cols-[8rem_minmax(0,1fr)] gap-x-3 text-sm">
            <template v-for="{ name, value } in row.typed" :key="name"
              ><dt class="text-ink-2">{{ name }}</dt>
              <dd class="min-w-0 break-words">{{ value }}</dd></template
            >
          </dl>
          <p class="mt-1 text-sm text-brass">It {{ WHY[row.reason] ?? row.reason }}.</p>
        </div>
        <span class="flex gap-2">
          <button type="button" class="btn" @click="settle(row, release, 'It is on the list.')">
            Release it
          </button>
          <button type="button" class="btn" @click="settle(row, throwOut, 'It is gone.')">It is spam</button>
        </span>
      </li>
    </ul>
  </div>
</template>
