<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSeveral, useTags, type Several, type Wanted } from '@/api/follow-ups'
import { useMembers } from '@/api/me'
import { useNotices } from '@/lib/notices'
import FinishMenu from './FinishMenu.vue'
import PutOffMenu from './PutOffMenu.vue'

/** One thing done to all that are chosen, with the number said and one undo for all. */
const props = defineProps<{ ids: number[]; wanted: Wanted; zone: string; now: Date }>()
const emit = defineEmits<{ done: [] }>()
const notices = useNotices()
const several = useSeveral()
const { data: members } = useMembers()
const { data: tags } = useTags()
const tag = ref('')
// All that the filter shows, also what is not on this page.
const everything = ref(false)
const whom = computed(() =>
  everything.value ? { all_of: { state: 'open' as const, ...props.wanted } } : { ids: props.ids },
)
const count = (n: number) => (n === 1 ? 'one' : String(n))

async function act(
  body: Several,
  said: string,
  back: (result: Awaited<ReturnType<typeof several.mutateAsync>>) => Several[],
) {
  try {
    const result = await several.mutateAsync({ ...body, ...whom.value })
    const left = result.left.length
      ? ` ${count(result.left.length)} left as ${result.left.length === 1 ? 'it was' : 'they were'}: ${result.left[0]?.why}`
      : ''
    notices.say(`${count(result.done.length)} ${said}.${left}`, {
      undo: async () => {
        for (const one of back(result)) await several.mutateAsync(one)
      },
    })
    emit('done')
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
const takeUp = (result: { done: number[] }): Several[] => [{ do: 'take-up', ids: result.done }]
function give(event: Event) {
  const field = event.target as HTMLSelectElement
  if (field.value === '-') return
  const to = Number(field.value) || null
  const named = members.value?.find((one) => one.id === to)
  void act(
    { do: 'give', member_id: to },
    named ? `given to ${named.name || named.email}` : 'given back to everybody',
    (result) => {
      const groups = new Map<number | null, number[]>()
      for (const one of result.before)
        groups.set(one.member_id, [...(groups.get(one.member_id) ?? []), one.id])
      return [...groups].map(([member_id, ids]) => ({ do: 'give', ids, member_id }))
    },
  )
}
function tagThem() {
  const named = tag.value
  if (named.trim())
    void act({ do: 'tag', tag: named }, `tagged “${named.trim()}”`, (result) => [
      { do: 'untag', tag: named, ids: result.done },
    ])
}
</script>

<template>
  <div
    class="sheet sticky top-0 z-20 mb-3 flex flex-wrap items-center gap-2 border-petrol! p-2"
    role="region"
    aria-label="What is done to all that are chosen"
  >
    <strong role="status">{{
      everything ? 'All that the list shows' : `${count(ids.length)} chosen`
    }}</strong>
    <label class="flex items-center gap-1 text-sm"
      ><input v-model="everything" type="checkbox" /> all that match</label
    >
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
    <PutOffMenu
      :zone="zone"
      :now="now"
      :opening="null"
      @until="(until, said) => act({ do: 'put-off', until }, `put off until ${said}`, takeUp)"
    />
    <FinishMenu @finish="(outcome, said) => act({ do: 'finish', outcome }, `finished: ${said}`, takeUp)" />
    <button type="button" class="btn-link ml-auto" @click="emit('done')">Choose none</button>
  </div>
</template>
