<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { endSessions, readSessions, startAnew } from '@/api/account'
import { useClock } from '@/lib/clock'
import { saidTime } from '@/lib/time'
import { useGuarded } from './again'
import PasswordAgain from './PasswordAgain.vue'
import { browserOf } from './browser'

/** Every browser in which one is signed in. */
const { data: sessions, refetch } = useQuery({ queryKey: ['sessions'], queryFn: readSessions })
const { error, fields, busy, waiting, guarded, again, never } = useGuarded()
const { now, zone } = useClock()
const shown = computed(() =>
  [...(sessions.value ?? [])].sort(
    (a, b) => Number(b.is_current) - Number(a.is_current) || b.created_at - a.created_at,
  ),
)
const others = computed(() => shown.value.filter((one) => !one.is_current).map((one) => one.id))
const end = (ids: number[]) =>
  guarded(async () => {
    await endSessions(ids)
    await refetch()
  })
const everywhere = () =>
  guarded(async () => {
    await endSessions(shown.value.map((one) => one.id))
    startAnew('/sign-in')
  })
</script>

<template>
  <article id="sessions" class="sheet p-5" aria-labelledby="sessions-title">
    <h2 id="sessions-title" class="mb-2">Where you are signed in</h2>
    <ul>
      <li
        v-for="one in shown"
        :key="one.id"
        class="flex flex-wrap items-center gap-3 border-t border-line-2 py-2.5"
      >
        <span class="min-w-0 flex-1">
          <strong>{{ browserOf(one.user_agent) }}</strong>
          <span class="block text-sm text-ink-2"
            >since {{ saidTime(new Date(one.created_at * 1000), now, zone) }}, from {{ one.ip }}</span
          >
        </span>
        <span v-if="one.is_current" class="text-moss">this browser</span>
        <button
          v-else
          type="button"
          class="btn"
          :disabled="busy"
          :aria-label="`Sign out ${browserOf(one.user_agent)}`"
          @click="end([one.id])"
        >
          Sign out
        </button>
      </li>
    </ul>
    <p class="mt-3 flex flex-wrap gap-2">
      <button v-if="others.length" type="button" class="btn" :disabled="busy" @click="end(others)">
        Sign out everywhere else
      </button>
      <button type="button" class="btn" :disabled="busy" @click="everywhere">Sign out everywhere</button>
    </p>
    <PasswordAgain
      v-if="waiting"
      :error="fields.password ?? error?.message"
      :busy="busy"
      @said="again"
      @cancel="never"
    />
    <p v-else-if="error" class="mt-2 font-semibold text-rust" role="alert">{{ error.message }}</p>
  </article>
</template>
