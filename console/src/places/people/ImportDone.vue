<script setup lang="ts">
import { ref } from 'vue'
import type { Brought } from '@/api/imports'
import { saidCount } from '@/lib/time'

/** A file that is in, on its way, or taken out again. */
defineProps<{ row: Brought; error: string | undefined }>()
const emit = defineEmits<{ undo: []; take: [] }>()
const asking = ref(false)
const HEADS: Record<string, string> = {
  stopped: 'It stopped before the end',
  done: 'It is in',
  undoing: 'It is being undone',
  undone: 'It is undone',
}
</script>

<template>
  <section class="sheet p-5" aria-labelledby="done-title">
    <h2 id="done-title" class="mb-2">
      <span aria-live="polite">{{
        HEADS[row.state] ?? `On its way in: ${saidCount(row.position)} rows so far`
      }}</span>
    </h2>
    <p class="mb-3">
      {{ saidCount(row.new) }} new, {{ saidCount(row.joined) }} joined somebody,
      {{ saidCount(row.refused) }} refused.
      <template v-if="row.state === 'undone'"
        >{{
          row.left
            ? `${saidCount(row.left)} stay: something was done with them since.`
            : 'Everybody it added is gone again.'
        }}
      </template>
    </p>
    <p v-if="row.state === 'stopped'" class="mb-3">
      {{ row.position ? `The first ${saidCount(row.position)} rows are in; the rest` : 'It' }} could not be
      taken for hours. It goes on after what is in, and nobody is taken twice.
    </p>
    <div class="flex flex-wrap gap-2">
      <button v-if="row.state === 'stopped'" type="button" class="btn btn-main" @click="emit('take')">
        Take the rest in
      </button>
      <a v-if="row.refused" class="btn" :href="`/api/imports/${row.id}/refused`" download
        >The refused rows, as a file</a
      >
      <RouterLink v-if="row.state === 'done'" class="btn" to="/people">To your people</RouterLink>
      <template v-if="['done', 'stopped'].includes(row.state)">
        <template v-if="asking">
          <button type="button" class="btn text-rust" @click="((asking = false), emit('undo'))">
            Take them all out again
          </button>
          <button type="button" class="btn" @click="asking = false">Cancel</button>
        </template>
        <button v-else type="button" class="btn" @click="asking = true">Undo it …</button>
      </template>
    </div>
    <p v-if="asking" class="mt-2 text-sm text-ink-2">Whoever did something since, or was worked on, stays.</p>
    <p v-if="error" class="mt-2 font-semibold text-rust" role="alert">{{ error }}</p>
  </section>
</template>
