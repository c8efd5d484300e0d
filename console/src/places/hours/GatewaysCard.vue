<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { bringGatewayBack, dropGateway, makeGateway, useGateways } from '@/api/talks'
import { useForm } from '@/parts/form'
import { useNotices } from '@/lib/notices'

/** Services outside whose messages come in and whose answers go out through a bridge. */
const { data: gateways } = useGateways()
const queries = useQueryClient()
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const [name, address, bearer] = [ref(''), ref(''), ref('')]
const made = ref<{ name: string; calls: string; secret: string } | null>(null)
const fresh = () => queries.invalidateQueries({ queryKey: ['gateways'] })
const make = () =>
  run(async () => {
    made.value = await makeGateway({ name: name.value, address: address.value, bearer: bearer.value })
    name.value = address.value = bearer.value = ''
    await fresh()
  })
const drop = (id: number, called: string) =>
  run(async () => {
    await dropGateway(id)
    await fresh()
    notices.say(`${called} is deleted. What was said there stays; nothing comes in or goes out any more.`, {
      undo: () => bringGatewayBack(id),
    })
  })
</script>

<template>
  <details class="sheet mt-4 p-4">
    <summary class="font-semibold">
      Services that answer here{{
        gateways?.length ? ` · ${gateways.map((one) => one.name).join(', ')}` : ''
      }}
    </summary>
    <p class="mt-2 text-sm text-ink-2">
      A bridge joins a messaging service to Follow-up: what is written there stands on the list, and your
      answer arrives there.
    </p>
    <ul class="mt-2 grid gap-2">
      <li v-for="one in gateways" :key="one.id" class="flex flex-wrap items-center gap-2">
        <strong>{{ one.name }}</strong>
        <span v-if="one.down_since" class="text-rust">does not answer</span>
        <span v-if="one.waiting" class="text-brass">{{ one.waiting }} waiting to go out</span>
        <code class="text-sm break-all text-ink-2">{{ one.calls }}</code>
        <button type="button" class="btn ml-auto text-rust" @click="drop(one.id, one.name)">Delete</button>
      </li>
    </ul>
    <form class="mt-3 grid gap-2" novalidate @submit.prevent="make">
      <label class="grid text-sm text-ink-2"
        >What it is called<input v-model="name" class="input" maxlength="80" :aria-invalid="!!fields.name"
      /></label>
      <label class="grid text-sm text-ink-2"
        >Where its bridge takes messages<input
          v-model="address"
          class="input"
          placeholder="https://…"
          maxlength="500"
          :aria-invalid="!!fields.address"
      /></label>
      <label class="grid text-sm text-ink-2"
        >What it knows us by (its bearer)<input v-model="bearer" class="input" maxlength="500"
      /></label>
      <p v-if="error" class="font-semibold text-rust" role="alert">
        {{ Object.values(fields)[0] ?? error.message }}
      </p>
      <button class="btn justify-self-start" :disabled="busy">Add the service</button>
    </form>
    <p v-if="made" class="mt-2 rounded-md bg-petrol-wash p-2 text-sm" role="status">
      {{ made.name }} calls <code class="break-all">{{ made.calls }}</code>, signed with
      <code class="break-all">{{ made.secret }}</code>. This secret is shown this once.
    </p>
  </details>
</template>
