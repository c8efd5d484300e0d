<script setup lang="ts">
import type { Deed } from '@/api/rehearsals'
import { vTyped } from '@/lib/typed'
import { DOES, readTime, sayTime } from './deeds'

/** What they do, one thing after the other. */
const props = defineProps<{ deeds: Deed[]; wrong: Record<string, string>; slugs: string[] }>()
const emit = defineEmits<{ set: [deeds: Deed[]] }>()
const put = (deeds: Deed[]) =>
  emit(
    'set',
    [...deeds].sort((a, b) => a.at - b.at),
  )
const change = (at: number, patch: object) =>
  put(props.deeds.map((one, index) => (index === at ? ({ ...one, ...patch } as Deed) : one)))
const value = (event: Event) => (event.target as HTMLInputElement).value.trim()
function time(at: number, event: Event) {
  const found = readTime(value(event))
  if (found === null) (event.target as HTMLInputElement).value = sayTime(props.deeds[at]?.at ?? 0)
  else change(at, { at: found })
}
function kind(at: number, event: Event) {
  const to = value(event) as Deed['do']
  put(props.deeds.map((one, index) => (index === at ? ({ at: one.at, ...DOES[to].fresh() } as Deed) : one)))
}
function field(at: number, name: string, event: Event) {
  const text = value(event)
  change(at, { [name]: name === 'to' ? Math.min(100, Math.max(0, Number(text) || 0)) : text })
}
function add() {
  const last = props.deeds[props.deeds.length - 1]
  put([...props.deeds, { at: (last?.at ?? -10) + 10, ...DOES[last ? 'close' : 'page'].fresh() } as Deed])
}
const inside = (one: Deed, name: string) =>
  String(Object.entries(one).find(([key]) => key === name)?.[1] ?? '')
const bad = (at: number) =>
  Object.entries(props.wrong).find(([place]) => place.startsWith(`deeds.${at}.`))?.[1]
</script>

<template>
  <ol class="grid gap-1">
    <li
      v-for="(one, at) in deeds"
      :key="at"
      class="grid grid-cols-[4.2rem_minmax(0,1fr)_auto] items-center gap-1"
    >
      <input
        v-typed="sayTime(one.at)"
        class="input px-1.5! tabular-nums"
        :aria-label="`Deed ${at + 1}: when`"
        @change="time(at, $event)"
      />
      <span class="grid gap-1">
        <select class="input" :aria-label="`Deed ${at + 1}: what`" :value="one.do" @change="kind(at, $event)">
          <option v-for="(does, key) in DOES" :key="key" :value="key">{{ does.name }}</option>
        </select>
        <select
          v-if="DOES[one.do].field === 'touchpoint'"
          class="input"
          :aria-label="`Deed ${at + 1}: touchpoint`"
          :value="inside(one, 'touchpoint')"
          @change="field(at, 'touchpoint', $event)"
        >
          <option value="" disabled>choose one</option>
          <option v-for="slug in slugs" :key="slug">{{ slug }}</option>
        </select>
        <input
          v-else-if="DOES[one.do].field"
          v-typed="inside(one, DOES[one.do].field ?? '')"
          class="input"
          :placeholder="DOES[one.do].hint ?? ''"
          :aria-label="`Deed ${at + 1}: ${DOES[one.do].field}`"
          @change="field(at, DOES[one.do].field ?? '', $event)"
        />
        <span v-if="one.do === 'page'" class="flex items-center gap-1 text-sm text-ink-2"
          ><input
            v-typed="one.screens"
            type="number"
            min="0.1"
            max="200"
            step="0.5"
            class="input w-18! px-1.5!"
            :aria-label="`Deed ${at + 1}: screens`"
            @change="change(at, { screens: Math.max(0.1, Number(value($event)) || 3) })"
          />
          screens long</span
        >
        <label v-if="one.do === 'page'" class="flex items-start gap-1 text-sm text-ink-2"
          ><input
            type="checkbox"
            class="mt-1"
            :aria-label="`Deed ${at + 1}: notice`"
            :checked="one.notice ?? false"
            @change="change(at, { notice: ($event.target as HTMLInputElement).checked })"
          />
          a notice of the site’s own stands there</label
        >
        <span v-if="bad(at)" class="text-sm font-semibold text-rust">{{ bad(at) }}</span>
      </span>
      <button
        type="button"
        class="btn-link self-start pt-1.5 text-rust min-h-6 min-w-6"
        :aria-label="`Leave out deed ${at + 1}`"
        @click="put(deeds.filter((_, index) => index !== at))"
      >
        ×
      </button>
    </li>
  </ol>
  <button type="button" class="btn-link mt-1.5 font-semibold" @click="add">+ Add something they do</button>
</template>
