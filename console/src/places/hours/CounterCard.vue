<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import type { HoursSet } from '@/api/hours'
import { setUsualHours, useAtCounter } from '@/api/me'
import { useForm } from '@/parts/form'

/** Who is at the counter, and when each is usually there. */
defineProps<{ sets: HoursSet[] }>()
const { data: everybody } = useAtCounter()
const queries = useQueryClient()
const { error, run } = useForm()
const set = (member: number, text: string) =>
  run(async () => {
    await setUsualHours(member, text ? Number(text) : null)
    await queries.invalidateQueries()
  })
</script>

<template>
  <section class="sheet grid gap-2 p-5" aria-labelledby="counter">
    <h2 id="counter">At the counter</h2>
    <div v-for="one in everybody" :key="one.member" class="flex flex-wrap items-center gap-x-2">
      <span class="w-full truncate font-semibold">{{ one.name }}</span>
      <span class="flex-1 text-sm" :class="one.away ? 'text-ink-2' : 'text-moss'">{{
        one.away ? (one.back ? `back ${one.back}` : 'away') : 'there'
      }}</span>
      <select
        class="input w-36!"
        :aria-label="`When ${one.name} is usually there`"
        :value="one.hours_id ?? ''"
        @change="set(one.member, ($event.target as HTMLSelectElement).value)"
      >
        <option value="">any time</option>
        <option v-for="each in sets" :key="each.id" :value="each.id">{{ each.name }}</option>
      </select>
    </div>
    <p v-if="error" class="font-semibold text-rust" role="alert">{{ error.message }}</p>
    <p class="text-sm text-ink-2">
      Outside of their times they count as away. Each says so for themselves at the top.
    </p>
  </section>
</template>
