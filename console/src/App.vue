<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed, defineAsyncComponent, onMounted, ref, watch, type Component, type Ref } from 'vue'
import { useRoute } from 'vue-router'
import { keptFor, wipe } from './lib/kept'
import { writeAsIn } from './lib/time'
import { useMe } from './api/me'
import DayLine from './parts/DayLine.vue'
import NoticeList from './parts/NoticeList.vue'
import TopBar from './parts/TopBar.vue'
import { finding, helping, openBox } from './parts/find'

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
// What opens by a key comes after what is seen at once: when somebody asks for it, or when there is nothing to do.
const QUIET = 3000 // milliseconds
const quiet = ref(false)
/** Without a network it may not come: it is away again then, and fetched anew when it is asked for. */
const later = (loader: () => Promise<Component>, open: Ref<boolean>) =>
  defineAsyncComponent({
    loader,
    onError: (_, retry, fail, attempts) => {
      if (attempts < 2) return retry()
      open.value = quiet.value = false
      fail()
    },
  })
const FindBox = later(() => import('./parts/FindBox.vue'), finding)
const KeysHelp = later(() => import('./parts/KeysHelp.vue'), helping)
const idle = (work: () => void) =>
  'requestIdleCallback' in window ? requestIdleCallback(work) : setTimeout(work)
onMounted(() => setTimeout(() => idle(() => (quiet.value = true)), QUIET))
onKeyStroke('k', (event) => {
  if (!inside.value || (!event.ctrlKey && !event.metaKey)) return
  event.preventDefault()
  openBox()
})
onKeyStroke('F1', (event) => {
  if (!inside.value) return
  event.preventDefault()
  helping.value = true
})
</script>

<template>
  <div class="flex h-full flex-col">
    <template v-if="inside">
      <TopBar />
      <DayLine />
      <FindBox v-if="quiet || finding" />
      <KeysHelp v-if="quiet || helping" />
    </template>
    <main class="min-h-0 flex-1" :class="{ 'overflow-auto': !inside }">
      <RouterView />
    </main>
    <NoticeList />
  </div>
</template>
