<script setup lang="ts">
import { computed } from 'vue'
import { useWorkWith, type Card } from '@/api/people'
import { useClock } from '@/lib/clock'
import { saidTime } from '@/lib/time'
import { KINDS, STATES } from '@/lib/names'

/** What stands behind somebody: what they agreed to, the work with them, and the cards that became one. */
const props = defineProps<{ one: Card }>()
const emit = defineEmits<{ parted: [merge: number] }>()
const { zone, now } = useClock()
const { data: works } = useWorkWith(computed(() => props.one.id))
</script>

<template>
  <section class="sheet p-4" aria-labelledby="agreed-title">
    <h2 id="agreed-title" class="mb-1">What they agreed to</h2>
    <p v-if="!one.consents.length" class="text-ink-2">Nothing: news may not be sent to them.</p>
    <ul class="grid gap-2">
      <li v-for="each in one.consents" :key="each.proof">
        “{{ each.wording }}”
        <span class="block text-sm text-ink-2"
          >{{ saidTime(each.given_at, now, zone) }}{{ each.page ? ` on ${each.page}` : ''
          }}{{
            each.confirmed_at ? `, confirmed by mail ${saidTime(each.confirmed_at, now, zone)}` : ''
          }}</span
        >
        <span v-if="each.withdrawn_at" class="block text-sm font-semibold text-rust"
          >withdrawn {{ saidTime(each.withdrawn_at, now, zone) }}</span
        >
        <details class="text-sm text-ink-2">
          <summary>proof</summary>
          <code class="break-all">{{ each.proof }}</code>
        </details>
      </li>
    </ul>
  </section>

  <section v-if="works?.length" class="sheet p-4" aria-labelledby="work-title">
    <h2 id="work-title" class="mb-1">Follow-ups</h2>
    <ul class="grid gap-1">
      <li v-for="each in works" :key="each.id">
        <RouterLink class="btn-link" :to="`/follow-up/${each.id}`">{{
          KINDS[each.kind as keyof typeof KINDS] ?? each.kind
        }}</RouterLink>
        <span class="text-ink-2">
          · {{ STATES[each.state as keyof typeof STATES] ?? each.state }} ·
          {{ saidTime(each.opened_at, now, zone) }}</span
        >
        <span v-if="each.excerpt" class="block truncate text-sm text-ink-2" dir="auto">{{
          each.excerpt
        }}</span>
      </li>
    </ul>
  </section>

  <section v-if="one.merges.length" class="sheet p-4" aria-labelledby="joined-title">
    <h2 id="joined-title" class="mb-1">Joined cards</h2>
    <ul class="grid gap-1">
      <li v-for="each in one.merges" :key="each.id" class="flex items-center gap-2">
        <span class="min-w-0 flex-1" dir="auto"
          >{{ each.name || 'without a name' }}, {{ saidTime(each.at, now, zone) }}</span
        >
        <button type="button" class="btn" @click="emit('parted', each.id)">Make two again</button>
      </li>
    </ul>
  </section>
</template>
