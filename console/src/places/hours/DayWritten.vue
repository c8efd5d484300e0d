<script setup lang="ts">
import { onMounted, ref, useTemplateRef } from 'vue'
import { readWeek } from '@/api/hours'
import { clock, pieceOf, type DayRow, type Piece } from './week'

/** The hours of a day, written instead of drawn. */
const props = defineProps<{ row: DayRow }>()
const emit = defineEmits<{ take: [pieces: Piece[]]; cancel: [] }>()
const typed = ref(props.row.pieces.map((piece) => `${clock(piece.start)}-${clock(piece.end)}`).join(', '))
const wrong = ref('')
const field = useTemplateRef<HTMLInputElement>('field')
onMounted(() => field.value?.focus())

async function read() {
  const text = typed.value.trim()
  const also = text.split(',').map((stretch) => `${props.row.day} also ${stretch.trim()}`)
  try {
    const { week, unread } = text ? await readWeek(also.join('; ')) : { week: [], unread: [] }
    // The day that is drawn is all of it, or stays as it is.
    if (unread.length) throw new Error(`“${unread[0]}” cannot be read as hours.`)
    emit('take', week.map(pieceOf))
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This cannot be read.'
  }
}
</script>

<template>
  <div
    class="my-1 flex flex-wrap items-end gap-2 rounded-md bg-petrol-wash p-2"
    @keydown.enter.prevent="read"
  >
    <label class="grid grow text-sm text-ink-2"
      >{{ row.name }} is open<input
        ref="field"
        v-model="typed"
        class="input"
        placeholder="9-17:30, 20-00:30, or nothing for closed"
        :aria-invalid="!!wrong"
    /></label>
    <button type="button" class="btn" @click="read">Take it</button>
    <button type="button" class="btn" @click="emit('cancel')">Cancel</button>
    <p v-if="wrong" class="w-full font-semibold text-rust" role="alert">{{ wrong }}</p>
  </div>
</template>
