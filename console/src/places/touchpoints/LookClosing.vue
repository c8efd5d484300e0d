<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { vTyped } from '@/lib/typed'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import type { LookHandle } from './look'
import LookRow from './LookRow.vue'
import type { Change, TouchpointDocument } from '@/api/document'

/** How it is closed: by its sign, by a click outside, by Esc, or by itself. */
defineProps<{ look: LookHandle; leaving: TouchpointDocument['leaving'] }>()
const emit = defineEmits<{ change: Change }>()
const leave = (patch: Partial<TouchpointDocument['leaving']>) =>
  emit('change', `leaving.${Object.keys(patch)[0]}`, (d) => Object.assign(d.leaving, patch))
</script>

<template>
  <div class="grid gap-1.5">
    <LookRow
      name="Close sign"
      :departs="look.departs('cross')"
      :from="look.from.value"
      @back="look.back('cross')"
    >
      <span class="grid gap-1">
        <SelectBox
          label="Close sign"
          :value="look.value('cross').style"
          :options="choices['look.cross.style']"
          @set="look.set('cross', { ...look.value('cross'), style: $event })"
        />
        <input
          v-if="look.value('cross').style === 'word'"
          v-typed="look.value('cross').word"
          class="input"
          aria-label="Word to close"
          maxlength="40"
          @change="
            look.set('cross', {
              ...look.value('cross'),
              word: ($event.target as HTMLInputElement).value.trim() || 'Close',
            })
          "
        />
        <SelectBox
          label="Corner of the close sign"
          :value="look.value('cross').place"
          :options="choices['look.cross.place']"
          @set="look.set('cross', { ...look.value('cross'), place: $event })"
        />
        <span class="flex items-center gap-1.5 text-sm text-ink-2"
          >size
          <NumberBox
            label="Size of the close sign"
            :value="look.value('cross').size"
            :least="24"
            :most="64"
            @set="look.set('cross', { ...look.value('cross'), size: $event ?? 36 })"
          />px</span
        >
      </span>
    </LookRow>
    <span class="flex items-center gap-2"
      >sign comes after
      <NumberBox
        label="Seconds until the close sign"
        :value="leaving.cross"
        :least="0"
        :most="60"
        empty="none"
        @set="leave({ cross: $event })"
      />
      s</span
    >
    <TickBox :value="leaving.outside" @set="leave({ outside: $event })">by a click outside</TickBox>
    <TickBox :value="leaving.escape" @set="leave({ escape: $event })">by Esc</TickBox>
    <span class="flex items-center gap-2"
      >by itself after
      <NumberBox
        label="Seconds until it goes by itself"
        :value="leaving.after"
        :least="2"
        :most="3600"
        empty="never"
        @set="leave({ after: $event })"
      />
      s</span
    >
    <TickBox :value="leaving.video_end" @set="leave({ video_end: $event })">at the end of its video</TickBox>
    <TickBox :value="leaving.hold_scroll" @set="leave({ hold_scroll: $event })"
      >the page behind stands still meanwhile</TickBox
    >
  </div>
</template>
