<script setup lang="ts">
import type { TouchpointDocument } from '@visitor/generated/document'

defineProps<{ document: TouchpointDocument }>()
const emit = defineEmits<{ change: [what: string, change: (document: TouchpointDocument) => void] }>()
const PLACES = { middle: 'in the middle', top: 'at the top', bottom: 'at the bottom' } as const
type Place = keyof typeof PLACES
const COLOURS = { card: 'Card', text: 'Text', button: 'Button', button_text: 'On the button' } as const
type Colour = keyof typeof COLOURS
const value = (event: Event) => (event.target as HTMLInputElement).value

function width(event: Event) {
  const wanted = Math.min(1200, Math.max(280, Math.round(Number(value(event))) || 480))
  emit('change', 'width', (document) => (document.look.width = wanted))
}
</script>

<template>
  <section class="mt-4" aria-labelledby="whole">
    <h2 id="whole" class="mb-2 font-body! text-base! text-ink-2">The whole</h2>
    <div class="grid grid-cols-[6rem_1fr] items-center gap-2">
      <label for="look-place">Stands</label>
      <select
        id="look-place"
        class="input"
        :value="document.look.place"
        @change="emit('change', 'place', (d) => (d.look.place = value($event) as Place))"
      >
        <option v-for="(name, place) in PLACES" :key="place" :value="place">{{ name }}</option>
      </select>
      <label for="look-phone">On phones</label>
      <select
        id="look-phone"
        class="input"
        :value="document.look.phone.place"
        @change="emit('change', 'phone', (d) => (d.look.phone.place = value($event) as Place))"
      >
        <option v-for="(name, place) in PLACES" :key="place" :value="place">{{ name }}</option>
      </select>
      <label for="look-width">Width</label>
      <span class="flex items-center gap-2"
        ><input
          id="look-width"
          type="number"
          min="280"
          max="1200"
          step="10"
          class="input w-24!"
          :value="document.look.width"
          @change="width"
        />
        px</span
      >
      <template v-for="(name, role) in COLOURS" :key="role">
        <label :for="`colour-${role}`">{{ name }}</label>
        <span class="flex items-center gap-2"
          ><input
            :id="`colour-${role}`"
            type="color"
            class="h-8 w-12 rounded border border-line bg-sheet"
            :value="document.look.colours[role]"
            @input="emit('change', `colour-${role}`, (d) => (d.look.colours[role as Colour] = value($event)))"
          />
          <code class="text-sm text-ink-2">{{ document.look.colours[role] }}</code></span
        >
      </template>
    </div>
  </section>
</template>
