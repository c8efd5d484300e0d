<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { useDoneLately } from '@/api/follow-ups'
import { saidTime } from '@/lib/time'
import { useTakeBack } from '@/parts/several'

/** What was done to several within the last day, each with its way back. */
defineProps<{ zone: string; now: Date }>()
const { data: batches } = useDoneLately()
const takeBack = useTakeBack()
</script>

<template>
  <Popover v-if="batches?.length" class="relative">
    <PopoverButton class="btn-link">Done to several <span aria-hidden="true">▾</span></PopoverButton>
    <PopoverPanel class="pop absolute right-0 mt-1 w-96 max-w-[calc(100vw-1.5rem)] max-md:left-0">
      <ul class="grid gap-1" aria-label="Done to several within the last day">
        <li v-for="batch in batches" :key="batch.id" class="flex items-baseline gap-3 px-2 py-1">
          <span class="min-w-0 flex-1" dir="auto"
            ><strong>{{ batch.count }}</strong> {{ batch.words }}
            <span class="text-ink-2"
              >· {{ [batch.by, saidTime(batch.at, now, zone)].filter(Boolean).join(', ') }}</span
            ></span
          >
          <button v-if="batch.undoable" type="button" class="btn" @click="takeBack(batch.id)">Undo</button>
          <span v-else-if="batch.undone" class="text-ink-2">taken back</span>
        </li>
      </ul>
    </PopoverPanel>
  </Popover>
</template>
