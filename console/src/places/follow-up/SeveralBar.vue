<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useCountOf, useTags, type Wanted } from '@/api/follow-ups'
import { useMembers } from '@/api/me'
import { saidChosen, useSeveralWork, type Whom } from '@/parts/several'
import FinishMenu from './FinishMenu.vue'
import PutOffMenu from './PutOffMenu.vue'

/** What can be done to all that are chosen. */
const props = defineProps<{ ids: number[]; wanted: Wanted; zone: string; now: Date }>()
const emit = defineEmits<{ done: [] }>()
const work = useSeveralWork()
const { data: members } = useMembers()
const { data: tags } = useTags()
const tag = ref('')
// All that the filter shows, also what is not on this page.
const everything = ref(false)
const { data: matching } = useCountOf(toRef(props, 'wanted'), everything)
const finished = computed(() => props.wanted.state === 'finished')
/** Nothing is done to all before it is said to how many. */
const ready = computed(() => !everything.value || matching.value !== undefined)
const whom = computed<Whom>(() =>
  everything.value ? { all_of: { state: 'open' as const, ...props.wanted } } : { ids: props.ids },
)

async function after(done: Promise<boolean>) {
  if (await done) emit('done')
}
function give(event: Event) {
  const field = event.target as HTMLSelectElement
  if (field.value === '-') return
  const to = Number(field.value) || null
  const named = members.value?.find((one) => one.id === to)
  void after(work.give(whom.value, to, named?.name || named?.email || ''))
}
function tagThem() {
  if (tag.value.trim()) void after(work.tag(whom.value, tag.value))
}
</script>

<template>
  <div
    class="sheet sticky top-0 z-20 mb-3 flex flex-wrap items-center gap-2 border-petrol! p-2"
    role="region"
    aria-label="What is done to all that are chosen"
  >
    <strong role="status">{{
      everything ? (matching === undefined ? 'Counting …' : saidChosen(matching)) : saidChosen(ids.length)
    }}</strong>
    <label class="flex items-center gap-1 text-sm"
      ><input v-model="everything" type="checkbox" /> all that match</label
    >
    <fieldset class="contents" :disabled="!ready">
      <select class="input w-auto! py-1!" aria-label="Give them to" value="-" @change="give">
        <option value="-">Give to …</option>
        <option value="">everybody</option>
        <option v-for="one in members" :key="one.id" :value="one.id">{{ one.name || one.email }}</option>
      </select>
      <form class="flex gap-1" @submit.prevent="tagThem">
        <input
          v-model="tag"
          class="input w-24! py-1!"
          aria-label="Tag them"
          placeholder="+ tag"
          list="several-tags"
          maxlength="60"
        />
        <datalist id="several-tags"><option v-for="one in tags" :key="one" :value="one" /></datalist>
      </form>
      <button v-if="finished" type="button" class="btn" @click="after(work.takeUp(whom))">
        Take up again
      </button>
      <template v-else>
        <PutOffMenu
          :zone="zone"
          :now="now"
          :opening="null"
          @until="(until, said) => after(work.putOff(whom, until, said))"
        />
        <FinishMenu @finish="(outcome, said) => after(work.finish(whom, outcome, said))" />
      </template>
    </fieldset>
    <button type="button" class="btn-link ml-auto" @click="emit('done')">Choose none</button>
  </div>
</template>
