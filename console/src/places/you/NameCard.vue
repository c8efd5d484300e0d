<script setup lang="ts">
import { ref, watch } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { renameMe, useMe } from '@/api/me'
import { useNotices } from '@/lib/notices'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/parts/form'

/** The name that the others and the people one writes to read. */
const { data: me } = useMe()
const queries = useQueryClient()
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const name = ref('')
watch(
  () => me.value?.name,
  (known) => (name.value = known ?? ''),
  { immediate: true },
)
async function keep() {
  await renameMe(name.value)
  await queries.invalidateQueries()
  notices.say('Others read your new name.')
}
</script>

<template>
  <article class="sheet p-5" aria-labelledby="name-title">
    <h2 id="name-title" class="mb-2">Your name</h2>
    <form class="flex flex-wrap items-start gap-3" novalidate @submit.prevent="run(keep)">
      <TextField
        v-model="name"
        class="w-80 max-w-full"
        label="Name"
        autocomplete="name"
        :error="fields.name ?? error?.message"
        hint="Stands beside what you do, and under the mails you write."
      />
      <button class="btn sm:mt-[1.55rem]" :disabled="busy || name.trim() === me?.name">Keep</button>
    </form>
  </article>
</template>
