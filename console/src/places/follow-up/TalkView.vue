<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import { readTalk, type Talk } from '@/api/follow-ups'
import { saidTime } from '@/lib/time'

/** The conversation behind a follow-up, as it goes on. */
const props = defineProps<{ id: number; zone: string; now: Date; stamp: string }>()
const emit = defineEmits<{ more: [] }>()
const talk = ref<Talk | null>(null)
const log = ref<HTMLElement>()
const STATES: Record<string, string> = {
  waiting: 'on its way',
  accepted: 'taken by the service',
  delivered: 'delivered',
  mailed: 'mailed, since they had left',
  seen: 'seen',
  'not seen yet': 'not seen yet',
}
const state = (text: string) => STATES[text] ?? text.replace(/^failed/, 'not delivered')

async function look() {
  try {
    const found = await readTalk(props.id)
    const had = talk.value?.messages.length ?? 0
    const more = (found?.messages.length ?? 0) > had
    talk.value = found
    if (!more) return
    if (had) emit('more')
    await nextTick(() => log.value?.lastElementChild?.scrollIntoView({ block: 'end' }))
  } catch {
    // Looked at again in a moment.
  }
}
watch(() => [props.id, props.stamp], look, { immediate: true })
// While it is on the screen both sides see each other's words within seconds.
useIntervalFn(() => {
  if (talk.value && !document.hidden) void look()
}, 2500)
</script>

<template>
  <section v-if="talk" class="flex min-h-0 flex-col" aria-label="Conversation">
    <p class="mb-2 flex flex-wrap items-center gap-2 text-sm">
      <span class="font-semibold">Conversation</span>
      <span v-if="talk.through" class="chip">through {{ talk.through }}</span>
      <span v-else-if="talk.there" class="text-moss">● on the page now</span>
      <span v-else class="text-ink-2">○ {{ talk.left }}</span>
    </p>
    <ol ref="log" class="grid content-start gap-1.5" role="log" aria-label="What was said">
      <li
        v-for="one in talk.messages"
        :key="one.n"
        class="grid"
        :class="one.source === 'them' ? 'justify-items-start' : 'justify-items-end'"
      >
        <p
          class="max-w-[85%] rounded-lg px-3 py-1.5 whitespace-pre-wrap"
          :class="
            one.source === 'them'
              ? 'bg-petrol-wash'
              : one.source === 'us'
                ? 'bg-petrol text-sheet'
                : 'border border-line text-ink-2'
          "
          dir="auto"
        >
          <a v-if="one.file" :href="one.file.href" target="_blank" rel="noopener" class="grid gap-1"
            ><img
              v-if="one.file.picture"
              :src="one.file.href"
              alt=""
              class="max-h-48 max-w-full rounded"
              loading="lazy"
            />{{ one.file.name }}</a
          >
          <template v-else>{{ one.text }}</template>
        </p>
        <small class="text-ink-2"
          >{{ one.source === 'script' ? 'by the script' : one.who || '' }} {{ saidTime(one.at, now, zone)
          }}{{
            one.source === 'us' && one.state
              ? ` · ${state(one.state)}`
              : one.state.startsWith('failed')
                ? ` · ${state(one.state)}`
                : ''
          }}</small
        >
      </li>
    </ol>
    <p v-if="talk.choices.length" class="mt-1 text-sm text-ink-2">
      They are offered: {{ talk.choices.join(' · ') }}
    </p>
  </section>
</template>
