<script setup lang="ts">
import type { Channel } from '@/api/channels'

/** A channel's short link, for what is printed. */
const props = defineProps<{ channel: Channel }>()
const place = (name: string) => `${props.channel.short}?at=${name}`
</script>

<template>
  <section class="sheet grid gap-2 p-5" aria-labelledby="printed">
    <h2 id="printed">For paper, signs and the van</h2>
    <p class="text-ink-2">
      A short link that you can print. Add <code>?at=</code> and a word, and the clicks are counted by where
      it was printed:
      <code class="break-all">{{ place('van') }}</code>
    </p>
    <span class="flex flex-wrap items-center gap-3"
      ><code class="break-all">{{ channel.short }}</code>
      <a class="btn" :href="`${channel.short}.svg`" download>QR code, SVG</a>
      <a class="btn" :href="`${channel.short}.png`" download>PNG</a></span
    >
    <p v-if="channel.printed.length">
      Followed:
      <span v-for="one in channel.printed" :key="one.place" class="mr-3"
        >{{ one.place || 'without a word' }} {{ one.count }}</span
      >
    </p>
  </section>
</template>
