<script setup lang="ts">
import { useInfiniteQuery } from '@tanstack/vue-query'
import { useDebounceFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { client, take } from '@/api/client'
import { useClock } from '@/lib/clock'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'

/** The answers of a touchpoint: one row each, its fields over all versions; a row leads to the person. */
const route = useRoute()
const router = useRouter()
const { zone, now } = useClock()
const id = computed(() => Number(route.params.id))
const q = computed(() => (typeof route.query.q === 'string' ? route.query.q : ''))
const text = ref(q.value)
const search = useDebounceFn(
  () => router.replace({ query: text.value.trim() ? { q: text.value.trim() } : {} }),
  300,
)
const { data, error, refetch, fetchNextPage, hasNextPage } = useInfiniteQuery({
  queryKey: computed(() => ['answers', id.value, q.value]),
  queryFn: ({ pageParam }) =>
    take(
      client.GET('/api/touchpoints/{touchpoint_id}/answers', {
        params: { path: { touchpoint_id: id.value }, query: { q: q.value, before: pageParam } },
      }),
    ),
  initialPageParam: null as number | null,
  getNextPageParam: (page) => page.before ?? undefined,
  placeholderData: (before) => before,
})
const first = computed(() => data.value?.pages[0])
const rows = computed(() => data.value?.pages.flatMap((page) => page.rows) ?? [])
const file = computed(() => `/api/touchpoints/${id.value}/answers-csv?${new URLSearchParams({ q: q.value })}`)
function path(url: string): string {
  try {
    return new URL(url).pathname
  } catch {
    return url
  }
}
const print = () => window.print()
</script>

<template>
  <div class="p-5 max-md:p-3">
    <div class="mb-3 flex flex-wrap items-center gap-2 print:hidden">
      <RouterLink :to="`/touchpoints/${id}`" class="btn px-2!" aria-label="Back to the touchpoint"
        >←</RouterLink
      >
      <h1 class="min-w-0 flex-1 truncate">Answers of {{ first?.touchpoint }}</h1>
      <input
        v-model="text"
        class="input w-52! max-md:w-full!"
        type="search"
        aria-label="Find in the answers"
        placeholder="Find in the answers"
        maxlength="200"
        @input="search"
      />
      <a class="btn" :href="file" download>Take out as CSV</a>
      <button type="button" class="btn" @click="print">Print</button>
    </div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div class="sheet overflow-x-auto print:border-0">
      <table class="w-full border-collapse">
        <thead>
          <tr class="text-left text-sm text-ink-2">
            <th class="px-3 py-2 font-semibold">When</th>
            <th v-for="one in first?.columns" :key="one.name" class="px-3 py-2 font-semibold">
              {{ one.label }}
            </th>
            <th class="px-3 py-2 font-semibold">Agreed to</th>
            <th class="px-3 py-2 font-semibold">Page</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" class="border-t border-line-2 align-top hover:bg-petrol-wash">
            <td class="px-3 py-2 whitespace-nowrap">
              <RouterLink v-if="row.person_id" :to="`/people/${row.person_id}`" class="btn-link">{{
                saidTime(row.at, now, zone)
              }}</RouterLink>
              <template v-else>{{ saidTime(row.at, now, zone) }}</template>
            </td>
            <td
              v-for="one in first?.columns"
              :key="one.name"
              class="max-w-80 px-3 py-2 break-words whitespace-pre-wrap"
              dir="auto"
            >
              {{ row.cells[one.name] }}
            </td>
            <td class="px-3 py-2 text-ink-2">
              {{ row.agreed.join(', ') }}{{ row.code ? ` · code ${row.code}` : '' }}
            </td>
            <td class="px-3 py-2 break-all text-ink-2">{{ path(row.page) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="first && !rows.length" class="p-5 text-ink-2">
        {{ q ? 'No answer holds this.' : 'Nobody has answered yet.' }}
      </p>
    </div>
    <button v-if="hasNextPage" type="button" class="btn mt-3 print:hidden" @click="fetchNextPage()">
      Show more
    </button>
  </div>
</template>
