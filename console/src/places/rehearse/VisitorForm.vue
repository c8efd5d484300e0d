<script setup lang="ts">
import { computed } from 'vue'
import type { MadeUp } from '@/api/rehearsals'
import { fromLocal, toLocal } from '@/lib/local'
import { vTyped } from '@/lib/typed'
import WhenBox from '@/parts/WhenBox.vue'

/** A made-up visitor, described. */
const props = defineProps<{ visitor: MadeUp; zone: string }>()
const emit = defineEmits<{ set: [patch: Partial<MadeUp>] }>()
const DEVICES = { desktop: 'Desktop', tablet: 'Tablet', phone: 'Phone' }
const BEEN = { 1: 'Never', 2: 'Once', 3: 'Twice', 6: 'Five times' }
const WAYS = {
  typed: 'Your address',
  search: 'A search site',
  social: 'A social site',
  elsewhere: 'Another site',
  here: 'Your own site',
}
const yes = { no: 'No', yes: 'Yes' }
/** The one that the rehearsal was begun from, in the editor. */
const edited = props.visitor.draft
const value = (event: Event) => (event.target as HTMLInputElement).value
const at = computed(() => toLocal(props.visitor.at, props.zone))
function setTime(local: string | null) {
  const found = fromLocal(local ?? '', props.zone)
  if (found) emit('set', { at: found })
}
const ROW = 'grid grid-cols-[7rem_minmax(0,1fr)] items-center gap-2'
</script>

<template>
  <div class="grid gap-1.5">
    <label :class="ROW"
      >Device<select
        class="input"
        :value="visitor.device"
        @change="emit('set', { device: value($event) as MadeUp['device'] })"
      >
        <option v-for="(name, key) in DEVICES" :key="key" :value="key">{{ name }}</option>
      </select></label
    >
    <label :class="ROW"
      >Been before<select
        class="input"
        :value="visitor.visits"
        @change="emit('set', { visits: Number(value($event)) })"
      >
        <option v-for="(name, key) in BEEN" :key="key" :value="key">{{ name }}</option>
      </select></label
    >
    <label :class="ROW"
      >Came by<select
        class="input"
        :value="visitor.arrival"
        @change="emit('set', { arrival: value($event) as MadeUp['arrival'] })"
      >
        <option v-for="(name, key) in WAYS" :key="key" :value="key">{{ name }}</option>
      </select></label
    >
    <label :class="ROW">Arrives<WhenBox :value="at" kind="both" @set="setTime" /></label>
    <label :class="ROW"
      >On the list<select
        class="input"
        :value="visitor.on_list ? 'yes' : 'no'"
        @change="emit('set', { on_list: value($event) === 'yes' })"
      >
        <option v-for="(name, key) in yes" :key="key" :value="key">{{ name }}</option>
      </select></label
    >
    <label :class="ROW"
      >At the counter<select
        class="input"
        :value="visitor.at_counter ? 'yes' : 'no'"
        @change="emit('set', { at_counter: value($event) === 'yes' })"
      >
        <option value="yes">Somebody</option>
        <option value="no">Nobody</option>
      </select></label
    >
    <details>
      <summary class="text-petrol">More about them</summary>
      <div class="mt-1.5 grid gap-1.5">
        <label :class="ROW"
          >Landed on<input
            v-typed="visitor.landing"
            class="input"
            placeholder="the first page"
            @change="emit('set', { landing: value($event).trim() })"
        /></label>
        <label :class="ROW"
          >Language<input
            v-typed="visitor.language"
            class="input"
            @change="emit('set', { language: value($event).trim() || 'en' })"
        /></label>
        <label :class="ROW"
          >Tags<input
            v-typed="visitor.tags.join(', ')"
            class="input"
            placeholder="none"
            @change="
              emit('set', {
                tags: value($event)
                  .split(',')
                  .map((one) => one.trim())
                  .filter(Boolean),
              })
            "
        /></label>
        <label class="flex items-center gap-2"
          ><input
            type="checkbox"
            :checked="visitor.signed_in"
            @change="emit('set', { signed_in: ($event.target as HTMLInputElement).checked })"
          />
          signed in to your site</label
        >
        <label class="flex items-center gap-2"
          ><input
            type="checkbox"
            :checked="!visitor.storage"
            @change="emit('set', { storage: !($event.target as HTMLInputElement).checked })"
          />
          their browser refuses to remember</label
        >
      </div>
    </details>
    <label v-if="edited" class="flex items-start gap-2"
      ><input
        type="checkbox"
        class="mt-1"
        :checked="visitor.draft === edited"
        @change="emit('set', { draft: ($event.target as HTMLInputElement).checked ? edited : null })"
      />
      as if the one you edited were on, as it stands now</label
    >
    <label class="flex items-start gap-2"
      ><input
        type="checkbox"
        class="mt-1"
        :checked="visitor.drafts"
        @change="emit('set', { drafts: ($event.target as HTMLInputElement).checked })"
      />
      as if every touchpoint were on, as it stands now</label
    >
  </div>
</template>
