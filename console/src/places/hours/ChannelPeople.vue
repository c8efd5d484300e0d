<script setup lang="ts">
import type { ChannelDocument } from '@/api/channels'
import type { HoursSet } from '@/api/hours'
import { useMembers } from '@/api/me'
import { HANDLES, ticked } from './channels'

/**
 * Who answers on a channel: by which handle, as which member, and when. `wrong`: what is wrong at a place of
 * it.
 */
defineProps<{ sets: HoursSet[]; wrong: (place: string) => string | undefined }>()
const draft = defineModel<ChannelDocument>({ required: true })
const { data: members } = useMembers()
const addPerson = () =>
  draft.value.people.push({ name: '', words: '', picture: null, handle: '', hours: [], member: null })
</script>

<template>
  <fieldset class="grid gap-2">
    <legend class="text-sm text-ink-2">Who answers</legend>
    <div v-for="(one, at) in draft.people" :key="at" class="grid gap-2 rounded-md border border-line-2 p-2">
      <span class="grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-2 max-md:grid-cols-2">
        <label class="grid text-sm text-ink-2"
          >Name<input v-model="one.name" class="input" maxlength="80"
        /></label>
        <label class="grid text-sm text-ink-2"
          >For what<input v-model="one.words" class="input" maxlength="200"
        /></label>
        <label class="grid text-sm text-ink-2"
          >{{ HANDLES[draft.kind]?.[0]
          }}<input v-model="one.handle" class="input" placeholder="the channel’s"
        /></label>
        <button
          type="button"
          class="btn px-1.5!"
          :aria-label="`Take out ${one.name}`"
          @click="draft.people.splice(at, 1)"
        >
          ✕
        </button>
      </span>
      <span class="flex flex-wrap items-end gap-3 text-sm">
        <label class="grid text-ink-2"
          >At the counter as<select v-model="one.member" class="input w-44!">
            <option :value="null">nobody of us</option>
            <option v-for="member in members" :key="member.id" :value="member.id">{{ member.name }}</option>
          </select></label
        >
        <fieldset class="flex flex-wrap gap-x-3">
          <legend class="text-ink-2">Only in the hours of</legend>
          <label v-for="set in sets" :key="set.id" class="flex items-center gap-1"
            ><input
              type="checkbox"
              :checked="one.hours.includes(set.id)"
              @change="one.hours = ticked(one.hours, set.id)"
            />
            {{ set.name }}</label
          >
        </fieldset>
      </span>
      <template v-for="part in ['name', 'handle', 'hours', 'member']" :key="part">
        <p v-if="wrong(`people.${at}.${part}`)" class="font-semibold text-rust">
          {{ wrong(`people.${at}.${part}`) }}
        </p>
      </template>
    </div>
    <span class="flex flex-wrap items-end gap-3"
      ><button type="button" class="btn" @click="addPerson">+ Somebody</button
      ><label v-if="draft.people.length" class="grid text-sm text-ink-2"
        >They get<select v-model="draft.pick" class="input w-56!">
          <option value="visitor">whom they choose</option>
          <option value="first-reachable">whoever can be reached first</option>
        </select></label
      ></span
    >
  </fieldset>
</template>
