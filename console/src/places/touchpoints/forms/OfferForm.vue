<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import { computed } from 'vue'
import { useClock } from '@/lib/clock'
import { fromLocal, toLocal } from '@/lib/local'
import NumberBox from '../fields/NumberBox.vue'
import SelectBox from '../fields/SelectBox.vue'
import TickBox from '../fields/TickBox.vue'
import WordsBox from '../fields/WordsBox.vue'
import type { PartOf } from '../types'

const props = defineProps<{ part: PartOf<'price'> | PartOf<'countdown'> }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const { zone, now } = useClock()
const ALIGNS = { start: 'at the start', middle: 'in the middle', end: 'at the end' }
const KINDS = { to: 'to a moment', each: 'for each visitor, from when they first see it' }
const kind = computed(() => (props.part.kind === 'countdown' && props.part.to !== null ? 'to' : 'each'))
const money = (text: string) => text.trim().replace(',', '.')
const fine = (text: string) => /^\d{1,9}(\.\d{1,2})?$/.test(money(text))

function amount(field: 'now' | 'old', event: Event) {
  const box = event.target as HTMLInputElement
  if (field === 'old' && !box.value.trim()) return emit('set', { old: null })
  if (fine(box.value)) emit('set', { [field]: money(box.value) })
  else if (props.part.kind === 'price') box.value = (field === 'now' ? props.part.now : props.part.old) ?? ''
}
function setKind(wanted: string) {
  const inAWeek = new Date(now.value.getTime() + 7 * 86_400_000).toISOString()
  emit('set', wanted === 'to' ? { to: inAWeek, minutes: null, again_after: null } : { to: null, minutes: 60 * 24 })
}
function moment(text: string) {
  const at = fromLocal(text, zone.value)
  if (at) emit('set', { to: at })
}
</script>

<template>
  <div class="grid gap-2">
    <SelectBox label="Where in the line" :value="part.align" :options="ALIGNS" @set="emit('set', { align: $event })" />
    <template v-if="part.kind === 'price'">
      <div class="grid grid-cols-3 gap-2">
        <label class="text-sm text-ink-2"
          >Now<input v-typed="part.now" class="input" inputmode="decimal" @change="amount('now', $event)"
        /></label>
        <label class="text-sm text-ink-2"
          >Before<input v-typed="part.old ?? ''" class="input" inputmode="decimal" placeholder="none" @change="amount('old', $event)"
        /></label>
        <label class="text-sm text-ink-2"
          >Currency<input
            v-typed="part.currency"
            class="input"
            maxlength="3"
            @change="
              /^[A-Za-z]{3}$/.test(($event.target as HTMLInputElement).value) &&
              emit('set', { currency: ($event.target as HTMLInputElement).value.toUpperCase() })
            "
        /></label>
      </div>
      <WordsBox label="For what" placeholder="a day, per person …" :value="part.unit" @set="emit('set', { unit: $event })" />
      <TickBox :value="part.show_saving" @set="emit('set', { show_saving: $event })">say what is saved</TickBox>
    </template>
    <template v-else>
      <WordsBox label="Words before it" :value="part.label" @set="emit('set', { label: $event })" />
      <SelectBox label="What it counts to" :value="kind" :options="KINDS" @set="setKind" />
      <label v-if="part.to !== null" class="text-sm text-ink-2"
        >Until, in {{ zone
        }}<input
          v-typed="toLocal(part.to ?? '', zone)"
          type="datetime-local"
          class="input"
          @change="moment(($event.target as HTMLInputElement).value)"
      /></label>
      <template v-else>
        <span class="flex items-center gap-2"
          ><NumberBox label="Minutes" :value="part.minutes" :least="1" :most="86400" @set="emit('set', { minutes: $event ?? 60 })" />
          minutes long</span
        >
        <span class="flex items-center gap-2"
          >again after
          <NumberBox
            label="Minutes until it begins again"
            :value="part.again_after"
            :least="1"
            :most="525600"
            empty="never"
            @set="emit('set', { again_after: $event })"
          />
          minutes</span
        >
      </template>
      <WordsBox label="Words when it has ended" :value="part.ended" @set="emit('set', { ended: $event })" />
    </template>
  </div>
</template>
