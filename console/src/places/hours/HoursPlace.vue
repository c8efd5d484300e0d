<script setup lang="ts">
import { useRoute } from 'vue-router'
import { useMay, useMe } from '@/api/me'

/** Opening hours, what visitors are told, and the ways to reach the business. */
const TABS = [
  ['/hours', 'Week'],
  ['/hours/told', 'What visitors are told'],
  ['/hours/channels', 'Channels'],
] as const
const route = useRoute()
const { data: me } = useMe()
const may = useMay()
const here = (path: string) => (path === '/hours' ? route.path === path : route.path.startsWith(path))
</script>

<template>
  <div class="h-full overflow-auto p-5">
    <div class="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2">
      <h1>Hours & channels</h1>
      <nav class="flex flex-wrap gap-2" aria-label="Parts of this place">
        <RouterLink
          v-for="[path, name] in TABS"
          :key="path"
          :to="path"
          class="btn"
          :class="{ '!border-petrol bg-petrol-tint text-petrol': here(path) }"
          :aria-current="here(path) ? 'page' : undefined"
          >{{ name }}</RouterLink
        >
      </nav>
    </div>
    <p v-if="me && !may('hours')" class="mb-4 text-ink-2">
      You see all of this as it is; owners and managers change it.
    </p>
    <RouterView />
  </div>
</template>
