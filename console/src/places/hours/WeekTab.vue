<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { useRoute, useRouter } from 'vue-router'
import { makeHours, useHours } from '@/api/hours'
import { useAtCounter, useMay } from '@/api/me'
import { useForm } from '@/parts/form'
import ErrorBox from '@/parts/ErrorBox.vue'
import CounterCard from './CounterCard.vue'
import PromiseForm from './PromiseForm.vue'
import SetForm from './SetForm.vue'
import WhatWouldTheySee from './WhatWouldTheySee.vue'
import { SITUATIONS } from './words'
import { useClock } from '@/lib/clock'
import { vTakesFocus } from '@/lib/focus'
import { toLocal } from '@/lib/local'

const { data: hours, error: unread, refetch } = useHours()
/** All of it comes at once, so that nothing moves under the pointer. */
const { isPending: counting } = useAtCounter()
const there = computed(() => !!hours.value && !counting.value)
const queries = useQueryClient()
const may = useMay()
const [route, router] = [useRoute(), useRouter()]
const sets = computed(() => (hours.value ? [hours.value.main, ...hours.value.others] : []))
const chosen = ref(Number(route.query.set) || 0)
const shown = computed(() => sets.value.find((one) => one.id === chosen.value)?.id ?? hours.value?.main.id)
const { zone, now } = useClock()
const adding = ref(false)
const name = ref('')
const { error, fields, run } = useForm()
const fresh = () => queries.invalidateQueries()

async function add() {
  const like = sets.value.find((one) => one.id === shown.value)
  if (!like) return
  const today = toLocal(now.value.toISOString(), zone.value).slice(0, 10)
  const exceptions = like.document.exceptions.filter((one) => one.last >= today)
  const made = await makeHours(name.value, { ...like.document, exceptions })
  await fresh()
  chosen.value = made.id
  adding.value = false
  name.value = ''
}
/** To where a reason is changed, in view and with the focus. */
async function go(hoursId: number | null, place: string) {
  if (place === 'replies') return void router.push('/hours/told')
  if (hoursId) chosen.value = hoursId
  await nextTick()
  const found = document.getElementById(place === 'hours' ? `hours-${shown.value}` : place)
  found?.scrollIntoView({ block: 'start' })
  found?.focus()
}
</script>

<template>
  <div>
    <ErrorBox :error="unread" :again="() => refetch()" />
    <div v-if="!there && !unread" class="sheet h-96 opacity-60" aria-busy="true" />
    <div
      v-if="hours && there"
      class="grid max-w-6xl grid-cols-[minmax(0,1fr)_22rem] items-start gap-5 max-lg:grid-cols-1"
    >
      <div class="grid grid-cols-1 gap-3">
        <div class="flex flex-wrap items-center gap-2" role="group" aria-label="Which hours">
          <button
            v-for="one in sets"
            :key="one.id"
            type="button"
            class="btn"
            :class="{ '!border-petrol bg-petrol-tint text-petrol': one.id === shown }"
            :aria-pressed="one.id === shown"
            @click="chosen = one.id"
          >
            {{ one.name }}<span v-if="one.id === hours.main.id" class="chip ml-1">main</span>
          </button>
          <button v-if="!adding && may('hours')" type="button" class="btn" @click="adding = true">
            + Other hours
          </button>
          <form
            v-if="adding"
            v-takes-focus
            class="flex flex-wrap items-center gap-2"
            novalidate
            @submit.prevent="run(add)"
          >
            <input
              v-model="name"
              class="input w-52!"
              aria-label="What the other hours are called"
              placeholder="Phone line, workshop …"
            />
            <button class="btn btn-main">Add them</button>
            <button type="button" class="btn" @click="adding = false">Cancel</button>
            <span class="text-sm text-ink-2"
              >They begin like {{ sets.find((one) => one.id === shown)?.name }}, odd days and all.</span
            >
          </form>
          <p v-if="error && adding" class="w-full font-semibold text-rust" role="alert">
            {{ fields.name ?? error.message }}
          </p>
        </div>
        <!-- All of them stay, so that what is not saved yet is there when one comes back to it. -->
        <fieldset class="contents" :disabled="!may('hours')">
          <SetForm
            v-for="one in sets"
            v-show="one.id === shown"
            :id="`hours-${one.id}`"
            :key="one.id"
            tabindex="-1"
            :set="one"
            :others="sets.filter((other) => other.id !== one.id)"
            @changed="fresh"
          />
        </fieldset>
      </div>
      <div class="grid gap-5">
        <fieldset class="contents" :disabled="!may('business')">
          <PromiseForm :minutes="hours.promise_minutes" :now-said="hours.promise_now" />
        </fieldset>
        <fieldset class="contents" :disabled="!may('hours')"><CounterCard :sets="sets" /></fieldset>
        <WhatWouldTheySee :sets="sets" :situations="SITUATIONS" @go="go" />
      </div>
    </div>
  </div>
</template>
