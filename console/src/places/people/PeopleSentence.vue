<script setup lang="ts">
import { useCountedTags, useNames, type Condition, type Filter } from '@/api/people'
import { DEEDS } from '@/lib/names'
import WhenBox from '@/parts/WhenBox.vue'

/** Who is sought, as a sentence: each condition is chosen where it stands. */
const props = defineProps<{ wanted: Filter }>()
const emit = defineEmits<{ change: [wanted: Filter] }>()
const { data: names } = useNames()
const { data: tags } = useCountedTags()
const FRESH: Record<string, [string, Condition]> = {
  did: ['did something', { what: 'did', no: false, deed: 'signed up', least: 1 }],
  tagged: ['are tagged', { what: 'tagged', no: false, tag: '' }],
  agreed: ['agreed to be written to', { what: 'agreed', no: false, withdrawn: false }],
  heard: ['were heard of lately', { what: 'heard', no: false, days: 30 }],
  added: ['are on the list since', { what: 'added', no: false }],
  reached: ['left an email or a number', { what: 'reached', no: false, kind: 'email' }],
}
const put = (conditions: Condition[], any = props.wanted.any) => emit('change', { conditions, any })
const change = (at: number, patch: object) =>
  put(props.wanted.conditions.map((one, index) => (index === at ? ({ ...one, ...patch } as Condition) : one)))
const drop = (at: number) => put(props.wanted.conditions.filter((_, index) => index !== at))
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
const orNull = (event: Event) => value(event).trim() || null
const number = (event: Event) => {
  const found = Math.round(Number(value(event)))
  return found >= 1 && found <= 36_500 ? found : null
}
function add(event: Event) {
  const box = event.target as HTMLSelectElement
  const fresh = FRESH[box.value]?.[1]
  box.value = ''
  if (!fresh) return
  const one = structuredClone(fresh)
  if (one.what === 'tagged') one.tag = tags.value?.[0]?.tag ?? 'tag'
  put([...props.wanted.conditions, one])
}
</script>

<template>
  <p class="flex flex-wrap items-center gap-1.5 text-ink-2" role="group" aria-label="Who is shown">
    <span>{{ wanted.conditions.length ? 'People who' : 'Everybody' }}</span>
    <span v-for="(one, at) in wanted.conditions" :key="at" class="flex flex-wrap items-center gap-1">
      <template v-if="at === 1">
        <select
          class="piece"
          aria-label="All of it, or any"
          :value="wanted.any ? 'or' : 'and'"
          @change="put(wanted.conditions, value($event) === 'or')"
        >
          <option>and</option>
          <option>or</option>
        </select>
      </template>
      <span v-else-if="at > 1">{{ wanted.any ? 'or' : 'and' }}</span>
      <template v-if="one.what === 'did'">
        <select
          class="piece"
          :aria-label="`Whether, ${at + 1}`"
          :value="String(one.no)"
          @change="change(at, { no: value($event) === 'true' })"
        >
          <option value="false">ever</option>
          <option value="true">never</option>
        </select>
        <select
          class="piece"
          :aria-label="`What they did, ${at + 1}`"
          :value="one.deed"
          @change="change(at, { deed: value($event) })"
        >
          <option v-for="(words, deed) in DEEDS" :key="deed" :value="deed">{{ words }}</option>
        </select>
        through
        <select
          class="piece"
          :aria-label="`Through which touchpoint, ${at + 1}`"
          :value="one.touchpoint ?? ''"
          @change="change(at, { touchpoint: orNull($event) })"
        >
          <option value="">any touchpoint</option>
          <option v-for="name in names?.touchpoints" :key="name">{{ name }}</option>
        </select>
        at least
        <input
          class="piece w-10!"
          type="number"
          min="1"
          max="1000"
          :aria-label="`How often, ${at + 1}`"
          :value="one.least"
          @change="change(at, { least: number($event) ?? 1 })"
        />
        {{ one.least === 1 ? 'time' : 'times' }} in the last
        <input
          class="piece w-16!"
          type="number"
          min="1"
          placeholder="any"
          :aria-label="`In how many days, ${at + 1}`"
          :value="one.days ?? ''"
          @change="change(at, { days: number($event) })"
        />
        days
      </template>
      <template v-else-if="one.what === 'tagged'">
        <select
          class="piece"
          :aria-label="`Whether, ${at + 1}`"
          :value="String(one.no)"
          @change="change(at, { no: value($event) === 'true' })"
        >
          <option value="false">are tagged</option>
          <option value="true">are not tagged</option>
        </select>
        <select
          class="piece"
          :aria-label="`Which tag, ${at + 1}`"
          :value="one.tag"
          @change="change(at, { tag: value($event) })"
        >
          <option
            v-for="name in [...new Set([...(tags ?? []).map((each) => each.tag), one.tag])]"
            :key="name"
          >
            {{ name }}
          </option>
        </select>
      </template>
      <template v-else-if="one.what === 'agreed'">
        <select
          class="piece"
          :aria-label="`Whether, ${at + 1}`"
          :value="`${one.no}-${one.withdrawn}`"
          @change="
            change(at, { no: value($event).startsWith('true'), withdrawn: value($event).endsWith('true') })
          "
        >
          <option value="false-false">agreed</option>
          <option value="true-false">never agreed</option>
          <option value="false-true">withdrew</option>
        </select>
        to
        <select
          class="piece"
          :aria-label="`To what, ${at + 1}`"
          :value="one.name ?? ''"
          @change="change(at, { name: orNull($event) })"
        >
          <option value="">anything</option>
          <option v-for="name in names?.consents" :key="name">{{ name }}</option>
        </select>
      </template>
      <template v-else-if="one.what === 'heard'">
        <select
          class="piece"
          :aria-label="`Whether, ${at + 1}`"
          :value="String(one.no)"
          @change="change(at, { no: value($event) === 'true' })"
        >
          <option value="false">were heard of</option>
          <option value="true">were not heard of</option>
        </select>
        in the last
        <input
          class="piece w-16!"
          type="number"
          min="1"
          :aria-label="`In how many days, ${at + 1}`"
          :value="one.days"
          @change="change(at, { days: number($event) ?? 30 })"
        />
        days
      </template>
      <template v-else-if="one.what === 'added'">
        are on the list from
        <WhenBox
          piece
          :aria-label="`From when, ${at + 1}`"
          :value="one.since ?? null"
          @set="change(at, { since: $event })"
        />
        to
        <WhenBox
          piece
          :aria-label="`Until when, ${at + 1}`"
          :value="one.until ?? null"
          @set="change(at, { until: $event })"
        />
      </template>
      <template v-else-if="one.what === 'reached'">
        <select
          class="piece"
          :aria-label="`What they left, ${at + 1}`"
          :value="`${one.no}-${one.kind}`"
          @change="change(at, { no: value($event).startsWith('true'), kind: value($event).split('-')[1] })"
        >
          <option value="false-email">left an email</option>
          <option value="true-email">left no email</option>
          <option value="false-phone">left a phone number</option>
          <option value="true-phone">left no phone number</option>
        </select>
      </template>
      <span v-else>have “{{ one.text }}” in their name or address</span>
      <button
        type="button"
        class="btn-link min-h-6 min-w-6 text-rust"
        :aria-label="`Leave out condition ${at + 1}`"
        @click="drop(at)"
      >
        ×
      </button>
    </span>
    <select class="piece" aria-label="Another condition" value="" @change="add">
      <option value="">{{ wanted.conditions.length ? 'and …' : 'who …' }}</option>
      <option v-for="([words], key) in FRESH" :key="key" :value="key">{{ words }}</option>
    </select>
  </p>
</template>
