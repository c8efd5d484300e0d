<script setup lang="ts">
import { computed, ref } from 'vue'
import { useKnownSites } from '@/api/sites'
import { readColour } from '@/lib/colour'
import { vTyped } from '@/lib/typed'

/**
 * A colour: picked, typed as #000, #1a2326 or black, or one of the house's (null: left open): these lie over
 * what is below, so that nothing moves under a click.
 */
const props = defineProps<{ label: string; value: string | null }>()
const emit = defineEmits<{ set: [value: string] }>()
const { data: sites } = useKnownSites()
const wrong = ref('')
const house = computed(() => {
  const colours = (sites.value ?? []).flatMap((one) =>
    Object.values((one.house as { colours?: Record<string, string | null> }).colours ?? {}),
  )
  return [...new Set(colours.filter((one): one is string => !!one))].slice(0, 8)
})
function typed(event: Event) {
  const found = readColour((event.target as HTMLInputElement).value)
  wrong.value = found ? '' : 'No colour is called that; write #1a2326 or black.'
  if (found && found !== props.value) emit('set', found)
}
</script>

<template>
  <span class="group relative grid gap-1">
    <span class="flex items-center gap-1.5">
      <input
        type="color"
        class="h-8 w-10 shrink-0 rounded border border-line bg-sheet"
        :aria-label="label"
        :class="{ 'hatch opacity-60': value === null }"
        :value="value ?? '#ffffff'"
        @input="emit('set', ($event.target as HTMLInputElement).value)"
      />
      <input
        v-typed="value ?? ''"
        class="input w-22! px-1.5!"
        :placeholder="value === null ? 'left open' : undefined"
        :aria-label="`${label}, written`"
        maxlength="30"
        :aria-invalid="!!wrong"
        @change="typed"
      />
    </span>
    <span
      v-if="house.length"
      class="absolute top-full left-0 z-10 mt-0.5 hidden gap-1 rounded-md border border-line bg-sheet p-1 shadow-sm group-focus-within:flex"
      role="group"
      :aria-label="`${label}: colours of the house`"
    >
      <button
        v-for="one in house"
        :key="one"
        type="button"
        class="size-5 rounded border border-line-2 outline-offset-1"
        :class="{ 'outline-2 outline-petrol': one === value }"
        :style="{ background: one }"
        :aria-label="one"
        :title="one"
        @click="emit('set', one)"
      />
    </span>
    <span v-if="wrong" class="text-sm font-semibold text-rust" role="alert">{{ wrong }}</span>
  </span>
</template>
