<script setup lang="ts">
import { useId } from 'vue'

/** A few words or names, each in a box of its own, with those on offer. */
const props = defineProps<{ label: string; words: string[]; offered?: string[]; hint?: string }>()
const emit = defineEmits<{ set: [words: string[]] }>()
const id = useId()
function add(event: Event) {
  const box = event.target as HTMLInputElement
  const found = box.value.split(',').map((one) => one.trim())
  box.value = ''
  const words = [...new Set([...props.words, ...found])].filter(Boolean)
  if (words.length !== props.words.length) emit('set', words)
}
</script>

<template>
  <fieldset class="grid gap-1">
    <legend class="font-semibold">{{ label }}</legend>
    <span v-if="words.length" class="flex flex-wrap gap-1">
      <span v-for="word in words" :key="word" class="rounded bg-petrol-wash px-1.5"
        >{{ word }}
        <button
          type="button"
          class="min-h-6 min-w-6 text-rust"
          :aria-label="`${label}: leave out ${word}`"
          @click="
            emit(
              'set',
              words.filter((one) => one !== word),
            )
          "
        >
          ×
        </button></span
      >
    </span>
    <input class="input" :list="id" :aria-label="`${label}: add`" :placeholder="hint" @change="add" @keydown.enter.prevent="add" />
    <datalist :id="id">
      <option v-for="one in offered ?? []" :key="one" :value="one" />
    </datalist>
  </fieldset>
</template>
