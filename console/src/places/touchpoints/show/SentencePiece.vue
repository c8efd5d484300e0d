<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'

const props = defineProps<{ words: string; wide?: boolean }>()
const left = ref(0)
/** The panel stands by the piece that was clicked, as far as there is room. */
function place(event: MouseEvent) {
  const piece = event.currentTarget as HTMLElement
  const room = (piece.offsetParent as HTMLElement | null)?.clientWidth ?? 0
  left.value = Math.max(0, Math.min(piece.offsetLeft, room - (props.wide ? 496 : 368)))
}
</script>

<template>
  <Popover as="span" class="inline">
    <PopoverButton
      class="inline rounded-t border-b-2 border-petrol-2 bg-petrol-wash box-decoration-clone px-1.5 text-left font-semibold text-petrol hover:bg-petrol-tint"
      @click="place"
      >{{ words }}</PopoverButton
    >
    <PopoverPanel
      as="div"
      class="pop absolute bottom-full z-30 mb-1 max-h-[min(30rem,70vh)] max-w-[calc(100vw-2.5rem)] overflow-auto font-body text-base leading-6"
      :class="wide ? 'w-[30rem]' : 'w-88'"
      :style="{ left: `${left}px` }"
      ><slot
    /></PopoverPanel>
  </Popover>
</template>
