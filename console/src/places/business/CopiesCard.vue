<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useCopies } from '@/api/copies'
import { useClock } from '@/lib/clock'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/parts/form'

/**
 * The whole business as one file: made, taken away, and brought into a business in which nothing was done
 * yet.
 */
const { found, error, make, bring, drop } = useCopies()
const { zone, now } = useClock()
const queries = useQueryClient()
const form = useForm()
const chosen = ref<HTMLInputElement>()
const working = computed(() => found.value?.copies.find((one) => one.state === 'working'))
watch(working, (is, was) => {
  // A business that was made anew is another one everywhere.
  if (was && !was.out && !is) void queries.invalidateQueries()
})
const said = (bytes: number) =>
  bytes < 1024 * 1024
    ? `${Math.max(1, Math.round(bytes / 1024))} KB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MB`
async function taken() {
  const file = chosen.value?.files?.[0]
  if (file) await form.run(() => bring(file))
  if (chosen.value) chosen.value.value = ''
}
</script>

<template>
  <article id="copy" class="sheet p-5" aria-labelledby="copy-title">
    <h2 id="copy-title" class="mb-1">A copy of everything</h2>
    <p class="mb-3 text-sm text-ink-2">
      People, follow-ups, touchpoints, hours, conversations and files, as one file that you can keep, read,
      and bring into an empty business. Passwords and secrets of services outside are not in it.
    </p>
    <ErrorBox :error="error" />
    <ul v-if="found?.copies.length" class="mb-3 grid gap-2">
      <li v-for="one in found.copies" :key="one.id" class="border-t border-line-2 pt-2">
        <p class="flex flex-wrap items-center gap-2">
          <span class="min-w-0 flex-1">
            {{ one.out ? 'Made' : 'Brought in' }} {{ saidTime(one.at, now, zone) }}
            <span class="text-ink-2">
              ·
              <template v-if="one.state === 'working'">{{
                one.out ? 'being made …' : 'on its way in …'
              }}</template>
              <template v-else-if="one.state === 'failed'">it could not be done</template>
              <template v-else>{{ one.out ? said(one.size) : 'done' }}</template>
            </span>
          </span>
          <a v-if="one.out && one.state === 'ready'" class="btn" :href="`/api/copies/${one.id}/file`" download
            >Take it</a
          >
          <button
            v-if="one.state !== 'working'"
            type="button"
            class="btn"
            :aria-label="`Throw away what was ${one.out ? 'made' : 'brought in'} ${saidTime(one.at, now, zone)}`"
            @click="form.run(() => drop(one.id))"
          >
            ✕
          </button>
        </p>
        <p
          v-for="line in one.told"
          :key="line"
          class="text-sm"
          :class="one.state === 'failed' ? 'text-rust' : 'text-ink-2'"
        >
          {{ line }}
        </p>
      </li>
    </ul>
    <p v-if="form.error.value" class="mb-2 font-semibold text-rust" role="alert">
      {{ Object.values(form.fields.value)[0] ?? form.error.value.message }}
    </p>
    <div class="flex flex-wrap gap-2">
      <button type="button" class="btn" :disabled="!!working || form.busy.value" @click="form.run(make)">
        Make a copy
      </button>
      <template v-if="found?.empty">
        <button type="button" class="btn" :disabled="!!working || form.busy.value" @click="chosen?.click()">
          Bring a copy in …
        </button>
        <input
          ref="chosen"
          type="file"
          accept=".zip,application/zip"
          class="sr-only"
          tabindex="-1"
          aria-label="The copy"
          @change="taken"
        />
      </template>
    </div>
    <p class="mt-2 text-sm text-ink-2">A copy is kept here for a week.</p>
  </article>
</template>
