<script setup lang="ts">
import { useId } from 'vue'

/** A few words or names, each in a box of its own, with those on offer; what was `seen` is one click away. */
const props = defineProps<{
  label: string
  words: string[]
  offered?: string[]
  seen?: string[]
  hint?: string
}>()
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
    <input
      class="input"
      :list="id"
      :aria-label="`${label}: add`"
      :placeholder="hint"
      @change="add"
      @keydown.enter.prevent="add"
    />
    <span v-if="seen?.length" class="text-sm text-ink-2"
      >seen:
      <button
        v-for="one in seen.slice(0, 6)"
        :key="one"
        type="button"
        class="btn-link mr-2 min-h-6"
        :aria-label="`${label}: add ${one}`"
        @click="emit('set', [...words, one])"
      >
        + {{ one }}
      </button></span
    >
    <datalist :id="id">
      <option v-for="one in offered ?? []" :key="one" :value="one" />
    </datalist>
  </fieldset>
</template>
