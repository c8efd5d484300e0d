<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useMe } from './api/me'
import DayLine from './parts/DayLine.vue'
import FindBox from './parts/FindBox.vue'
import KeysHelp from './parts/KeysHelp.vue'
import NoticeList from './parts/NoticeList.vue'
import TopBar from './parts/TopBar.vue'

const route = useRoute()
const { data: me } = useMe()
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
