<script setup lang="ts">
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import { keptFor, wipe } from './lib/kept'
import { writeAsIn } from './lib/time'
import { useMe } from './api/me'
import DayLine from './parts/DayLine.vue'
import FindBox from './parts/FindBox.vue'
import KeysHelp from './parts/KeysHelp.vue'
import NoticeList from './parts/NoticeList.vue'
import TopBar from './parts/TopBar.vue'

const route = useRoute()
const { data: me } = useMe()
// What is kept on the device is one member's of one business; whoever was taken out has nothing of it.
watch(
  me,
  (now) => {
    if (now?.business) writeAsIn(now.business.region, now.business.week_start)
    if (now?.business) void keptFor(`${now.email} ${now.business.id}`)
    else if (now) void wipe()
  },
  { immediate: true },
)
const inside = computed(() => !route.meta.open && !route.meta.plain && !!me.value?.business)
</script>

<template>
  <div class="flex h-full flex-col">
    <template v-if="inside">
      <TopBar />
      <DayLine />
      <FindBox />
      <KeysHelp />
    </template>
    <main class="min-h-0 flex-1" :class="{ 'overflow-auto': !inside }">
      <RouterView />
    </main>
    <NoticeList />
  </div>
</template>
