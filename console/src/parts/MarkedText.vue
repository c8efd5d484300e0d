<script setup lang="ts">
import { computed } from 'vue'

/** A text in which the server has marked what was sought. */
const props = defineProps<{ text: string }>()
const pieces = computed(() =>
  props.text.split('\uE000').flatMap((piece, at) => {
    if (!at) return [{ words: piece, sought: false }]
    const [words = '', rest = ''] = piece.split('\uE001')
    return [
      { words, sought: true },
      { words: rest, sought: false },
    ]
  }),
)
</script>

<template>
  <template v-for="(piece, at) in pieces" :key="at"
    ><mark v-if="piece.sought" class="rounded-sm bg-brass-tint text-ink">{{ piece.words }}</mark
    ><template v-else>{{ piece.words }}</template></template
  >
</template>
