<script setup lang="ts">
import { ICONS } from '@visitor/more/icons'
import { pictureOf } from '@/api/library'

/** The drawn icon of a kind of act, or the owner's picture. */
defineProps<{ icon: string; size?: number }>()
</script>

<template>
  <svg
    v-if="ICONS[icon]"
    viewBox="0 0 24 24"
    :width="size ?? 20"
    :height="size ?? 20"
    fill="none"
    stroke="currentColor"
    stroke-width="1.8"
    stroke-linecap="round"
    stroke-linejoin="round"
    aria-hidden="true"
  >
    <path :d="ICONS[icon]" />
  </svg>
  <img v-else :src="pictureOf(icon, 480)" alt="" class="size-full rounded-full object-cover" />
</template>
