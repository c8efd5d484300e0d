<script setup lang="ts">
import type { MadeUp } from '@/api/rehearsals'
import { useSites } from '@/api/sites'
import { fromLocal, toLocal } from '@/lib/local'
import WhenBox from '@/parts/WhenBox.vue'

/** As whom, when and where the list is looked at. */
defineProps<{ at: string; zone: string }>()
const seenBy = defineModel<Seen>({ required: true })
const site = defineModel<number>('site', { required: true })
const { data: sites } = useSites()
</script>

<script lang="ts">
/** `at` is an instant; empty is now. */
export interface Seen {
  visits: number
  device: MadeUp['device']
  at: string
}
</script>

<template>
  <span class="flex flex-wrap items-center gap-1.5" role="group" aria-label="As seen by">
    <span class="text-ink-2">seen</span>
    <select v-model="seenBy.visits" class="input w-auto!" aria-label="As seen by whom">
      <option :value="1">by a new visitor</option>
      <option :value="3">by one who knows it</option>
    </select>
    <select v-model="seenBy.device" class="input w-auto!" aria-label="On which device">
      <option value="desktop">on a desktop</option>
      <option value="tablet">on a tablet</option>
      <option value="phone">on a phone</option>
    </select>
    <WhenBox
      :value="toLocal(at, zone)"
      kind="both"
      class="w-52!"
      aria-label="At which time"
      @set="seenBy.at = fromLocal($event ?? '', zone) ?? ''"
    />
    <select v-if="(sites?.length ?? 0) > 1" v-model="site" class="input w-auto!" aria-label="On which site">
      <option v-for="one in sites" :key="one.id" :value="one.id">{{ one.name }}</option>
    </select>
  </span>
</template>
