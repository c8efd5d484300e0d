<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { daysLater, fromLocal } from '@/lib/local'
import { saidTime } from '@/lib/time'
import WhenBox from '@/parts/WhenBox.vue'

const props = defineProps<{ zone: string; now: Date; opening: string | null | undefined; label?: string }>()
const emit = defineEmits<{ until: [until: string, said: string]; waits: [] }>()
const own = ref<string | null>(null)
const wrong = ref('')

const choices = computed(() => {
  const later = (days: number) => daysLater(props.now, days, props.zone)
  const found = [{ name: 'In one hour', at: new Date(props.now.getTime() + 3600 * 1000) }]
  if (props.opening && new Date(props.opening) > props.now)
    found.push({ name: 'Next opening', at: new Date(props.opening) })
  return [...found, { name: 'Tomorrow, this time', at: later(1) }, { name: 'In a week', at: later(7) }]
})

/** The browser's wall clock is not the business's: what is typed is meant in the business's zone. */
const inZone = (text: string) => new Date(fromLocal(text, props.zone) ?? Number.NaN)
function choose(at: Date, close: () => void) {
  if (!(at > props.now)) {
    wrong.value = Number.isNaN(at.getTime()) ? 'Say until when.' : 'The time must lie ahead.'
    return
  }
  wrong.value = ''
  emit('until', at.toISOString(), saidTime(at, props.now, props.zone))
  close()
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="btn">{{ label ?? 'Put off' }} <span aria-hidden="true">▾</span></PopoverButton>
    <PopoverPanel v-slot="{ close }" class="pop absolute right-0 mt-1 w-72 max-w-[calc(100vw-1.5rem)]">
      <button
        v-if="!label"
        type="button"
        class="w-full rounded px-2 py-1.5 text-left hover:bg-petrol-wash"
        @click="(emit('waits'), close())"
      >
        Until they write again
      </button>
      <button
        v-for="choice in choices"
        :key="choice.name"
        type="button"
        class="flex w-full justify-between gap-3 rounded px-2 py-1.5 text-left hover:bg-petrol-wash"
        @click="choose(choice.at, close)"
      >
        <span>{{ choice.name }}</span><span class="shrink-0 text-ink-2">{{
          saidTime(choice.at, now, zone)
        }}</span>
      </button>
      <form
        class="mt-2 border-t border-line-2 pt-2"
        novalidate
        @submit.prevent="choose(inZone(own ?? ''), close)"
      >
        <label class="mb-1 block text-sm font-semibold" for="put-off-own">Or until</label>
        <span class="flex items-start gap-2"
          ><WhenBox id="put-off-own" :value="own" kind="both" :invalid="!!wrong" @set="own = $event" /><button
            class="btn"
          >
            Set
          </button></span
        >
        <p v-if="wrong" class="mt-1 text-sm font-semibold text-rust" role="alert">{{ wrong }}</p>
      </form>
    </PopoverPanel>
  </Popover>
</template>
