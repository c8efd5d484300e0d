<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { lookedThrough, takeUp, useAside, type Aside } from '@/api/mail-aside'
import { useClock } from '@/lib/clock'
import { useKeys } from '@/lib/keys'
import { useNotices } from '@/lib/notices'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'

const typed = ref('')
const q = refDebounced(typed, 250)
const { data: rows, error, refetch } = useAside(q)
const { zone, now } = useClock()
const queries = useQueryClient()
const notices = useNotices()
const router = useRouter()
useKeys([
  { keys: '↑ ↓', does: 'Go along the mails' },
  { keys: 't', does: 'Take it up: it goes on the list' },
])

const KINDS: Record<string, string> = {
  'auto-reply': 'answered by itself',
  bounce: 'says that a mail could not be delivered',
  complaint: 'complains of a mail',
  receipt: 'says that a mail was read',
  message: 'is from one of you, about nobody on the list',
}
const busy = ref<number | null>(null)
async function take(row: Aside) {
  if (busy.value !== null) return
  busy.value = row.id
  try {
    const id = await takeUp(row.id)
    notices.say('It is on the list.')
    for (const key of ['mail-aside', 'follow-ups', 'day']) void queries.invalidateQueries({ queryKey: [key] })
    await router.push(`/follow-up/${id}`)
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  } finally {
    busy.value = null
  }
}
const list = ref<HTMLElement>()
function keys(event: KeyboardEvent, row: Aside, at: number) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (way !== undefined) {
    event.preventDefault()
    list.value?.querySelectorAll<HTMLElement>('[data-mail]')[at + way]?.focus()
  } else if (event.key === 't') void take(row)
}
// Whoever reads this has looked at them; what comes later is counted anew.
let told = 0
watch(
  rows,
  async (found) => {
    const last = Math.max(0, ...(found ?? []).map((one) => one.id))
    if (q.value || last <= told) return
    const first = !told
    told = last
    await lookedThrough(last)
      .then(() => queries.invalidateQueries({ queryKey: ['day'] }))
      .catch(() => (told = 0))
    await nextTick()
    if (first && document.activeElement === document.body)
      list.value?.querySelector<HTMLElement>('[data-mail]')?.focus()
  },
  { immediate: true },
)
</script>

<template>
  <div class="h-full overflow-auto p-5 max-md:p-3">
    <div class="mb-1 flex flex-wrap items-center gap-3">
      <RouterLink to="/follow-up" class="btn px-2!" aria-label="Back to Follow-up">←</RouterLink>
      <h1>Not on the list</h1>
      <label class="sr-only" for="aside-q">Search these mails</label>
      <input
        id="aside-q"
        v-model="typed"
        type="search"
        class="input ml-auto w-72! max-md:w-full!"
        placeholder="Search"
      />
    </div>
    <p class="mt-2 mb-4 max-w-3xl text-ink-2">
      Mail that came in and asks nobody for an answer: automatic replies, receipts, what says that a mail was
      not delivered, and what one of you wrote about nobody on the list. It is kept for 90 days; what you take
      up goes on the list.
    </p>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!rows && !error" class="sheet h-48 opacity-60" aria-busy="true" />
    <p v-if="rows && !rows.length" class="sheet max-w-4xl p-8 text-center">
      {{ q ? 'No mail here has these words.' : 'Everything that came in is on the list.' }}
    </p>
    <ul v-if="rows?.length" ref="list" class="grid max-w-4xl gap-2" aria-label="Mails">
      <li
        v-for="(row, at) in rows"
        :key="row.id"
        data-mail
        tabindex="0"
        class="sheet flex flex-wrap items-start gap-4 p-4"
        @keydown="keys($event, row, at)"
      >
        <div class="min-w-0 flex-1 basis-80">
          <p class="break-words">
            <strong dir="auto">{{ row.name || row.sender || 'Nobody is named' }}</strong>
            <span class="text-ink-2">
              <template v-if="row.name && row.sender"> · {{ row.sender }}</template> ·
              {{ saidTime(row.received_at, now, zone) }}</span
            >
            <span v-if="!row.looked" class="chip ml-2 text-brass">new</span>
          </p>
          <p v-if="row.subject" class="font-semibold break-words" dir="auto">{{ row.subject }}</p>
          <p v-if="row.said" class="line-clamp-4 break-words whitespace-pre-wrap text-ink-2" dir="auto">
            {{ row.said }}
          </p>
          <p class="mt-1 text-sm text-ink-2">
            It {{ KINDS[row.kind] ?? 'was not taken up'
            }}<template v-if="row.files.length">
              · {{ row.files.map((file) => file.name).join(', ') }}</template
            >.
          </p>
        </div>
        <button type="button" class="btn" :disabled="busy === row.id" @click="take(row)">
          Take it up <kbd class="rounded border border-line px-1 text-xs max-md:hidden">t</kbd>
        </button>
      </li>
    </ul>
  </div>
</template>
