<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useQueryClient } from '@tanstack/vue-query'
import { turn, useTouchpoints, type Summary } from '@/api/touchpoints'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import NewTouchpoint from './NewTouchpoint.vue'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const notices = useNotices()
const { data: rows, error, refetch } = useTouchpoints()
const making = computed(() => 'new' in route.query)
const STATES = {
  live: ['●', 'On', 'text-moss'],
  off: ['○', 'Turned off', 'text-ink-2'],
  draft: ['✎', 'Made, not on', 'text-brass'],
} as const
const PURPOSES: Record<string, string> = { 'sign-up': 'Sign-up', inquiry: 'Inquiry' }
const state = (row: Summary) => STATES[row.state as keyof typeof STATES]

async function flip(row: Summary) {
  const way = row.state === 'live' ? 'off' : 'on'
  try {
    await turn(row.id, way)
    await queries.invalidateQueries()
    const back = way === 'on' ? 'off' : 'on'
    notices.say(`${row.name} is ${way}.`, { undo: () => turn(row.id, back).then(() => queries.invalidateQueries()) })
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <div class="mb-4 flex items-center justify-between">
      <h1>Touchpoints</h1>
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">+ New touchpoint</button>
    </div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!rows && !error" class="sheet h-72 opacity-60" aria-busy="true" />
    <div v-if="rows && !rows.length" class="sheet p-8 text-center">
      <p class="mb-3">A touchpoint asks your visitors for something: their address, or their question.</p>
      <button type="button" class="btn btn-main" @click="router.push('/touchpoints?new')">Make the first one</button>
    </div>
    <table v-if="rows?.length" class="sheet w-full border-separate border-spacing-0">
      <thead>
        <tr class="text-left">
          <th
            v-for="head in ['Touchpoint', 'State', 'Where', 'Its own page', '']"
            :key="head"
            scope="col"
            class="border-b border-line px-4 py-2.5 font-semibold text-ink-2"
          >
            {{ head }}<span v-if="!head" class="sr-only">Switch</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" class="[&:last-child>td]:border-0">
          <td class="border-b border-line-2 px-4 py-2.5" :class="{ hatch: row.state !== 'live' }">
            <span class="inline-block rounded pr-2" :class="{ 'bg-sheet px-2': row.state !== 'live' }">
              <RouterLink :to="`/touchpoints/${row.id}`" class="font-bold text-ink hover:underline">{{ row.name }}</RouterLink>
              <span class="block text-sm text-ink-2">{{ PURPOSES[row.purpose] }} · {{ row.stance }}</span>
            </span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5 font-semibold">
            <span :class="state(row)[2]"
              ><span aria-hidden="true">{{ state(row)[0] }}</span> {{ state(row)[1] }}</span
            >
            <span v-if="row.changed_since_live" class="block text-sm font-semibold text-brass">changed since it went live</span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5 text-ink-2">
            <template v-if="row.pages.length">{{ row.pages.join(', ') }}</template><template v-else>every page</template>
            <span class="block text-sm">{{ row.sites.map((site) => site.name).join(', ') || 'on no site' }}</span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5">
            <a v-if="row.state === 'live' && row.hosted[0]" :href="row.hosted[0]" target="_blank" rel="noopener" class="btn-link"
              >/t/{{ row.sites[0]?.slug }}/{{ row.slug }}</a
            >
            <span v-else class="text-ink-2">only while it is on</span>
          </td>
          <td class="border-b border-line-2 px-4 py-2.5 text-right">
            <button type="button" class="btn" :aria-label="`Turn ${row.state === 'live' ? 'off' : 'on'} ${row.name}`" @click="flip(row)">
              {{ row.state === 'live' ? 'Turn off' : 'Turn on' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <NewTouchpoint :open="making" @close="router.push('/touchpoints')" />
  </div>
</template>
