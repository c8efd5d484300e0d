<script setup lang="ts">
import { computed, ref } from 'vue'
import { useInfiniteQuery } from '@tanstack/vue-query'
import { readLog, useMembers } from '@/api/me'
import { useClock } from '@/lib/clock'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'

/** Who did what, for owners: the newest first, of somebody or of one kind. */
const { data: members } = useMembers()
const { zone, now } = useClock()
const verb = ref('')
const member = ref(0)
const query = computed(() => ({
  ...(verb.value ? { verb: verb.value } : {}),
  ...(member.value ? { member: member.value } : {}),
}))
const { data, error, hasNextPage, fetchNextPage, refetch } = useInfiniteQuery({
  queryKey: ['log', query],
  queryFn: ({ pageParam }) => readLog({ ...query.value, ...(pageParam ? { before: pageParam } : {}) }),
  initialPageParam: 0,
  getNextPageParam: (last) => (last.more ? last.entries[last.entries.length - 1]?.id : undefined),
})
const entries = computed(() => data.value?.pages.flatMap((page) => page.entries) ?? [])
const verbs = computed(() => data.value?.pages[0]?.verbs ?? [])
</script>

<template>
  <article id="log" class="sheet p-5" aria-labelledby="log-title">
    <div class="mb-2 flex flex-wrap items-center gap-2">
      <h2 id="log-title" class="mr-auto">Who did what</h2>
      <select v-model="member" class="input w-auto!" aria-label="By whom">
        <option :value="0">by anybody</option>
        <option v-for="one in members" :key="one.id" :value="one.id">by {{ one.name }}</option>
      </select>
      <select v-model="verb" class="input w-auto!" aria-label="What was done">
        <option value="">anything</option>
        <option v-for="one in verbs" :key="one" :value="one">{{ one }}</option>
      </select>
    </div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <ol class="grid">
      <li
        v-for="one in entries"
        :key="one.id"
        class="grid grid-cols-[9rem_minmax(0,1fr)] gap-3 border-t border-line-2 py-1.5"
      >
        <span class="text-sm text-ink-2">{{ saidTime(one.at, now, zone) }}</span>
        <span class="min-w-0 break-words"
          ><strong>{{ one.who }}</strong> {{ one.words }}</span
        >
      </li>
    </ol>
    <p v-if="data && !entries.length" class="text-ink-2">Nothing of that kind yet.</p>
    <button v-if="hasNextPage" type="button" class="btn mt-2" @click="fetchNextPage()">Older</button>
  </article>
</template>
