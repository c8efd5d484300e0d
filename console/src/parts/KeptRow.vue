<script setup lang="ts">
import { ref } from 'vue'
import { useNotices } from '@/lib/notices'
import { vTakesFocus } from '@/lib/focus'

/** What is kept under a name, as chips, and keeping what is shown; one click goes to it, another back. */
interface Kept {
  id: number
  name: string
  title: string
}
const props = defineProps<{
  kept: Kept[]
  current: number | null
  narrows: boolean
  /** What it is called: "this filter", "a group". */
  what: string
  all: string
  keep: (name: string, forAll: boolean) => Promise<unknown>
  drop: (id: number) => Promise<unknown>
}>()
const emit = defineEmits<{ go: [id: number | null] }>()
const notices = useNotices()
const naming = ref(false)
const name = ref('')
const forAll = ref(false)
const wrong = ref('')
async function keepIt() {
  try {
    await props.keep(name.value, forAll.value)
    notices.say(`“${name.value.trim()}” is kept.`)
    naming.value = false
    name.value = wrong.value = ''
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This was not kept.'
  }
}
const called = (id: number | null) => props.kept.find((one) => one.id === id)?.name
</script>

<template>
  <div class="flex flex-wrap items-center gap-2 text-sm">
    <button
      v-for="one in kept"
      :key="one.id"
      type="button"
      class="chip"
      :class="{ 'bg-petrol! text-sheet!': one.id === current }"
      :aria-pressed="one.id === current"
      :title="one.title"
      @click="emit('go', one.id === current ? null : one.id)"
    >
      {{ one.name }}
    </button>
    <template v-if="narrows">
      <form v-if="naming" v-takes-focus class="flex flex-wrap items-center gap-2" @submit.prevent="keepIt">
        <input
          v-model="name"
          class="input w-40! py-0.5!"
          aria-label="Its name"
          placeholder="Its name"
          maxlength="60"
        />
        <label class="flex items-center gap-1"
          ><input v-model="forAll" type="checkbox" /> for all of us</label
        >
        <button class="btn">Keep it</button>
        <button type="button" class="btn-link" @click="naming = false">Cancel</button>
        <span v-if="wrong" class="font-semibold text-rust" role="alert">{{ wrong }}</span>
      </form>
      <template v-else>
        <button v-if="current === null" type="button" class="btn-link" @click="naming = true">
          Keep {{ what }}
        </button>
        <button v-else type="button" class="btn-link" @click="drop(current)">
          Forget “{{ called(current) }}”
        </button>
        <button type="button" class="btn-link" @click="emit('go', null)">{{ all }}</button>
      </template>
    </template>
    <slot />
  </div>
</template>
