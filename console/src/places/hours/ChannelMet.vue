<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { ref, watch } from 'vue'
import { previewChannel, type Channel, type ChannelDocument } from '@/api/channels'
import type { Schemas } from '@/api/client'
import ActIcon from '@/parts/ActIcon.vue'
import { SITUATIONS } from './words'

/** How visitors meet a channel in every situation, as it stands in the form. */
const props = defineProps<{ channel: Channel; draft: ChannelDocument }>()
const seen = ref<Schemas['PreviewOut'][]>([])
const look = useDebounceFn(async () => {
  try {
    seen.value = await previewChannel(props.draft, props.channel.public_id)
  } catch {
    // What is not right yet is said when it is saved.
  }
}, 250)
watch(() => props.draft, look, { deep: true, immediate: true })
</script>

<template>
  <section class="grid gap-2" aria-labelledby="met">
    <h2 id="met">As visitors meet it</h2>
    <div class="grid grid-cols-2 gap-3 max-sm:grid-cols-1" :class="{ 'min-h-80': !seen.length }">
      <div
        v-for="one in seen"
        :key="one.situation"
        class="rounded-lg border-2 bg-fog p-3"
        :class="one.in_effect ? 'border-petrol' : 'border-line'"
      >
        <h3 class="mb-2 text-sm font-semibold" :class="one.in_effect ? 'text-petrol' : 'text-ink-2'">
          {{ SITUATIONS[one.situation] }}{{ one.in_effect ? ' · now' : '' }}
        </h3>
        <p v-if="one.hidden" class="text-sm text-ink-2">It is not shown.</p>
        <div v-else class="sheet ml-auto w-fit max-w-full p-2.5 text-sm">
          <p v-if="one.title" class="font-semibold">{{ one.title }}</p>
          <p v-if="one.text">{{ one.text }}</p>
          <span class="btn btn-main mt-1.5 w-full justify-center"
            ><ActIcon :icon="draft.icon" :size="16" /> {{ one.button }}</span
          >
          <p v-for="who in one.people" :key="who.name" class="mt-1 flex justify-between gap-3">
            <span
              >{{ who.name }} <span class="text-ink-2">{{ who.words }}</span></span
            ><span :class="who.reachable ? 'text-moss' : 'text-ink-2'">{{
              who.reachable ? 'there' : 'away'
            }}</span>
          </p>
        </div>
      </div>
    </div>
    <p class="text-sm">
      <RouterLink class="btn-link" to="/hours/told">Change what is said</RouterLink>
      <span class="text-ink-2">
        ·
        {{
          channel.used_in.length ? `stands in ${channel.used_in.join(', ')}` : 'stands in no touchpoint yet'
        }}</span
      >
    </p>
  </section>
</template>
