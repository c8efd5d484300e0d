<script setup lang="ts">
import { ref } from 'vue'
import { useCountedTags, type Change, type Card } from '@/api/people'
import { useClock } from '@/lib/clock'
import { telOf } from '@/lib/tel'
import { saidTime } from '@/lib/time'
import { vTyped } from '@/lib/typed'

/** Name, addresses and tags of somebody. `put` keeps a change and says whether it could. */
const props = defineProps<{ one: Card; put: (change: Change) => Promise<boolean> }>()
const { zone, now } = useClock()
const { data: tags } = useCountedTags()
const address = ref('')
const tag = ref('')
const value = (event: Event) => (event.target as HTMLInputElement).value
async function addAddress() {
  const text = address.value.trim()
  if (text && (await props.put({ do: 'address', text }))) address.value = ''
}
async function addTag() {
  const text = tag.value.trim()
  if (text && (await props.put({ do: 'tag', tag: text, on: true }))) tag.value = ''
}
</script>

<template>
  <section class="sheet grid gap-3 p-4" aria-label="Facts">
    <label class="grid gap-1 text-sm text-ink-2"
      >Name<input
        v-typed="one.name"
        class="input"
        maxlength="300"
        dir="auto"
        @change="put({ do: 'name', name: value($event) })"
    /></label>
    <div>
      <p class="text-sm text-ink-2">Addresses</p>
      <ul>
        <li v-for="each in one.addresses" :key="each.id" class="flex items-center gap-2 py-0.5">
          <a
            v-if="each.kind === 'phone'"
            class="btn-link min-w-0 flex-1 break-all"
            :href="telOf(each.shown)"
            >{{ each.shown }}</a
          >
          <span v-else class="min-w-0 flex-1 break-all">{{ each.shown }}</span>
          <button
            type="button"
            class="btn-link min-h-6 text-sm"
            :aria-label="`Remove ${each.shown}`"
            @click="put({ do: 'drop', address: each.id })"
          >
            remove
          </button>
        </li>
      </ul>
      <form class="mt-1 flex gap-1" @submit.prevent="addAddress">
        <input
          v-model="address"
          class="input py-1!"
          aria-label="Another email or phone"
          placeholder="+ email or phone"
          maxlength="320"
        />
        <button v-if="address.trim()" class="btn">Add</button>
      </form>
    </div>
    <div>
      <p class="text-sm text-ink-2">Tags</p>
      <p class="flex flex-wrap items-center gap-1.5">
        <span
          v-for="each in one.tags"
          :key="each.tag"
          class="chip"
          :title="each.given_by ? `given by ${each.given_by}` : 'your own'"
          >{{ each.tag }}{{ each.given_by ? ' ·' : '' }}
          <button
            type="button"
            class="ml-0.5"
            :aria-label="`Take off ${each.tag}`"
            @click="put({ do: 'tag', tag: each.tag, on: false })"
          >
            ✕
          </button></span
        >
      </p>
      <form class="mt-1 flex gap-1" @submit.prevent="addTag">
        <input
          v-model="tag"
          class="input w-36! py-1!"
          aria-label="Another tag"
          placeholder="+ tag"
          list="all-tags"
          maxlength="60"
        />
        <datalist id="all-tags"><option v-for="each in tags" :key="each.tag" :value="each.tag" /></datalist>
        <button v-if="tag.trim()" class="btn">Add</button>
      </form>
    </div>
    <p class="text-sm text-ink-2">On the list since {{ saidTime(one.added_at, now, zone) }}</p>
  </section>
</template>
