<script setup lang="ts">
import { computed } from 'vue'
import { vTyped } from '@/lib/typed'
import NumberBox from '@/parts/fields/NumberBox.vue'
import { kindOf, momentOf, MOMENTS, type Moment, type MomentKind, type Sentence } from './sentence'

/** When, on a page: any of these, or all of them. */
const props = defineProps<{ sentence: Sentence }>()
const emit = defineEmits<{ set: [patch: Partial<Sentence>] }>()
const all = computed(() => props.sentence.moments.some((one) => one.length > 1))
const flat = computed(() => props.sentence.moments.flat())
const LIMITS: Partial<Record<MomentKind, [least: number, most: number]>> = {
  after: [0, 3600],
  read: [1, 100],
  up: [0, 99],
  clicks: [1, 100],
  idle: [1, 3600],
}
const put = (moments: Moment[], together = all.value) =>
  emit('set', { moments: together ? (moments.length ? [moments] : []) : moments.map((one) => [one]) })
const change = (at: number, kind: MomentKind, value: unknown) =>
  put(flat.value.map((one, index) => (index === at ? momentOf(kind, value) : one)))
function add(event: Event) {
  const box = event.target as HTMLSelectElement
  const kind = box.value as MomentKind
  box.value = ''
  put([...flat.value, momentOf(kind)])
}
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="grid gap-2">
    <fieldset v-if="flat.length > 1" class="flex gap-4">
      <legend class="sr-only">Any or all</legend>
      <label class="flex items-center gap-1.5"
        ><input type="radio" name="together" :checked="!all" @change="put(flat, false)" /> any of these</label
      >
      <label class="flex items-center gap-1.5"
        ><input type="radio" name="together" :checked="all" @change="put(flat, true)" /> all of them</label
      >
    </fieldset>
    <p v-if="!flat.length" class="text-ink-2">
      It never comes by itself: a link, a button or your script opens it.
    </p>
    <span v-for="(one, at) in flat" :key="`${at} ${kindOf(one)}`" class="flex items-center gap-2">
      <NumberBox
        v-if="LIMITS[kindOf(one)]"
        :label="`Moment ${at + 1}: ${MOMENTS[kindOf(one)].name}`"
        :value="one[kindOf(one)] as number"
        :least="LIMITS[kindOf(one)]?.[0] ?? 0"
        :most="LIMITS[kindOf(one)]?.[1] ?? 100"
        @set="change(at, kindOf(one), $event)"
      />
      <input
        v-else-if="kindOf(one) !== 'leave'"
        v-typed="one[kindOf(one)] as string"
        class="input w-48! font-mono text-sm"
        :aria-label="`Moment ${at + 1}: selector of the element`"
        @change="typed($event) && change(at, kindOf(one), typed($event))"
      />
      <span class="min-w-0 flex-1">{{ MOMENTS[kindOf(one)].unit }}</span>
      <button
        type="button"
        class="btn-link text-rust min-h-6 min-w-6"
        :aria-label="`Leave out: ${MOMENTS[kindOf(one)].name}`"
        @click="put(flat.filter((_, index) => index !== at))"
      >
        ×
      </button>
    </span>
    <select v-if="flat.length < 10" class="input" aria-label="Add a moment" value="" @change="add">
      <option value="" disabled>+ another moment …</option>
      <optgroup label="Moments">
        <option
          v-for="kind in ['after', 'read', 'up', 'idle', 'clicks', 'leave'] as const"
          :key="kind"
          :value="kind"
        >
          {{ MOMENTS[kind].name }}
        </option>
      </optgroup>
      <optgroup label="More exact">
        <option v-for="kind in ['view', 'click'] as const" :key="kind" :value="kind">
          {{ MOMENTS[kind].name }}
        </option>
      </optgroup>
    </select>
  </div>
</template>
