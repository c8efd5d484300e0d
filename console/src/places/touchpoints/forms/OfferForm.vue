<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { vTyped } from '@/lib/typed'
import { computed, ref } from 'vue'
import { readMoney } from '@/api/touchpoints'
import { useClock } from '@/lib/clock'
import { daysLater, fromLocal, toLocal } from '@/lib/local'
import LengthBox from '@/parts/fields/LengthBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { PartOf } from '@/api/document'
import WhenBox from '@/parts/WhenBox.vue'

const props = defineProps<{ part: PartOf<'price'> | PartOf<'countdown'> }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const { zone, now } = useClock()
const ALIGNS = choices.align
const KINDS = { to: 'to a moment', each: 'from each visitor’s first sight' }
const ENDS = choices.at_end
const kind = computed(() => (props.part.kind === 'countdown' && props.part.to !== null ? 'to' : 'each'))
const wrong = ref<Record<string, string>>({})

/** An amount as people of the business's region write it; the server reads it. */
async function amount(field: 'now' | 'old', event: Event) {
  const text = (event.target as HTMLInputElement).value
  const none = field === 'old' && !text.trim()
  const read = none ? null : await readMoney(text)
  wrong.value = { ...wrong.value, [field]: !read || read.amount ? '' : read.words }
  if (!read) return emit('set', { old: null })
  if (read.amount)
    emit('set', { [field]: read.amount, ...(read.currency ? { currency: read.currency } : {}) })
}
function setKind(wanted: string) {
  const inAWeek = daysLater(now.value, 7, zone.value).toISOString()
  emit(
    'set',
    wanted === 'to' ? { to: inAWeek, minutes: null, again_after: null } : { to: null, minutes: 60 * 24 },
  )
}
function moment(text: string) {
  const at = fromLocal(text, zone.value)
  if (at) emit('set', { to: at })
}
</script>

<template>
  <div class="grid gap-2">
    <SelectBox
      label="Where in the line"
      :value="part.align"
      :options="ALIGNS"
      @set="emit('set', { align: $event })"
    />
    <template v-if="part.kind === 'price'">
      <div class="grid grid-cols-[1fr_1fr_4.5rem] gap-2">
        <label
          v-for="[field, name] in [
            ['now', 'Now'],
            ['old', 'Before'],
          ] as const"
          :key="field"
          class="text-sm text-ink-2"
          >{{ name
          }}<input
            v-typed="part[field] ?? ''"
            class="input"
            inputmode="decimal"
            :placeholder="field === 'old' ? 'none' : ''"
            :aria-invalid="!!wrong[field]"
            :aria-describedby="`${part.id}-${field}-wrong`"
            @change="amount(field, $event)"
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
      <template v-for="field in ['now', 'old'] as const" :key="field">
        <p
          v-if="wrong[field]"
          :id="`${part.id}-${field}-wrong`"
          class="text-sm font-semibold text-rust"
          role="alert"
        >
          {{ wrong[field] }}
        </p>
      </template>
      <p
        v-if="part.old !== null && Number(part.old) <= Number(part.now)"
        class="text-sm font-semibold text-brass"
      >
        “Before” is not higher than “now”, so there is no saving to show.
      </p>
      <WordsBox
        label="For what"
        placeholder="a day, per person …"
        :value="part.unit"
        @set="emit('set', { unit: $event })"
      />
      <TickBox :value="part.show_saving" @set="emit('set', { show_saving: $event })"
        >say what is saved</TickBox
      >
    </template>
    <template v-else>
      <WordsBox label="Words before it" :value="part.label" @set="emit('set', { label: $event })" />
      <SelectBox label="What it counts to" :value="kind" :options="KINDS" @set="setKind" />
      <label v-if="part.to !== null" class="text-sm text-ink-2"
        >Until, in {{ zone
        }}<WhenBox :value="toLocal(part.to ?? '', zone)" kind="both" @set="moment($event ?? '')"
      /></label>
      <template v-else>
        <LengthBox
          label="How long"
          :value="part.minutes"
          :least="1"
          :most="86400"
          @set="emit('set', { minutes: $event ?? 60 })"
        />
        <LengthBox
          label="Again, after its end"
          :value="part.again_after"
          :least="0"
          :most="525600"
          empty="never, or “at once”"
          @set="emit('set', { again_after: $event })"
        />
      </template>
      <SelectBox
        label="When it has ended"
        :value="part.at_end"
        :options="ENDS"
        @set="emit('set', { at_end: $event })"
      />
      <WordsBox
        v-if="part.at_end === 'words'"
        label="Words when it has ended"
        :value="part.ended"
        @set="emit('set', { ended: $event })"
      />
    </template>
  </div>
</template>
