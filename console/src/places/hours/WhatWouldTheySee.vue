<script setup lang="ts">
import { ref } from 'vue'
import { explain, type HoursSet } from '@/api/hours'
import type { Schemas } from '@/api/client'
import { useClock } from '@/lib/clock'
import { clockOf } from '@/lib/time'
import { toLocal } from '@/lib/local'
import { useForm } from '@/parts/form'
import WhenBox from '@/parts/WhenBox.vue'

/** What somebody would be told at a moment, with the reasons; each leads to where it is changed. */
const props = defineProps<{
  sets: HoursSet[]
  situations: Record<string, string>
  columns?: Schemas['DepartsOut'][]
  languages?: Schemas['TongueOut'][]
}>()
const emit = defineEmits<{ go: [hoursId: number | null, place: string, about: string] }>()
const { zone, now } = useClock()
const { error, fields, busy, run } = useForm()
const day = ref('')
const time = ref(clockOf('23:40'))
const hours = ref<number | null>(null)
const away = ref(false)
const column = ref('')
const language = ref('')
const found = ref<Schemas['ExplainedOut'] | null>(null)
const today = () => toLocal(now.value.toISOString(), zone.value).slice(0, 10)

const ask = () =>
  run(async () => {
    found.value = null
    const which = column.value ? undefined : (hours.value ?? props.sets[0]?.id)
    const more = { column: column.value, language: language.value }
    found.value = await explain({
      day: day.value || today(),
      time: time.value,
      free: !away.value,
      ...more,
      ...(which ? { hours_id: which } : {}),
    })
  })
/** Where a reason is changed: a set of hours, the promise, the replies. */
function go(about: string) {
  const place = about.split('.')[0] ?? ''
  emit('go', place === 'hours' ? (hours.value ?? props.sets[0]?.id ?? null) : null, place, about)
}
const CHANGED = ['hours', 'promise', 'replies']
</script>

<template>
  <section id="would" class="sheet p-5" aria-labelledby="would-title">
    <h2 id="would-title" class="mb-2">What would they see at …</h2>
    <form class="grid gap-2" novalidate @submit.prevent="ask">
      <div class="flex flex-wrap items-end gap-2">
        <label class="grid text-sm text-ink-2"
          >Day<WhenBox :value="day" class="w-38!" @set="day = $event ?? ''"
        /></label>
        <label class="grid text-sm text-ink-2"
          >Time<input v-model="time" class="input w-20!" maxlength="12" :aria-invalid="!!fields.time"
        /></label>
        <button class="btn" :disabled="busy">Look</button>
      </div>
      <label v-if="columns?.length" class="grid text-sm text-ink-2"
        >Where<select v-model="column" class="input">
          <option value="">anywhere</option>
          <option v-for="one in columns" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select></label
      >
      <label v-if="(languages?.length ?? 0) > 1" class="grid text-sm text-ink-2"
        >Language<select v-model="language" class="input">
          <option v-for="(one, at) in languages" :key="one.code" :value="at ? one.code : ''">
            {{ one.name }}
          </option>
        </select></label
      >
      <label v-if="sets.length > 1 && !column" class="grid text-sm text-ink-2"
        >By which hours<select v-model="hours" class="input">
          <option v-for="(one, at) in sets" :key="one.id" :value="at ? one.id : null">{{ one.name }}</option>
        </select></label
      >
      <label class="flex items-center gap-1.5"
        ><input v-model="away" type="checkbox" /> nobody is at the counter</label
      >
    </form>
    <p v-if="error" class="mt-2 font-semibold text-rust" role="alert">
      {{ Object.values(fields)[0] ?? error.message }}
    </p>
    <div v-if="found" class="mt-3 border-t border-line-2 pt-3" role="status">
      <p class="chip">{{ situations[found.situation] }}</p>
      <p v-if="found.hidden" class="mt-1 text-ink-2">Nothing is said.</p>
      <template v-else>
        <p class="mt-1 font-semibold">{{ found.title }}</p>
        <p>{{ found.text }}</p>
      </template>
      <h3 class="mt-3 font-semibold">Why</h3>
      <ol class="grid gap-1.5">
        <li v-for="one in found.reasons" :key="one.words" class="text-sm">
          {{ one.words }}
          <button
            v-if="CHANGED.includes(one.about.split('.')[0] ?? '')"
            type="button"
            class="btn-link"
            @click="go(one.about)"
          >
            Go there
          </button>
        </li>
      </ol>
    </div>
  </section>
</template>
