<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { find } from '@/api/follow-ups'
import { useMay } from '@/api/me'
import { erase, part, useAgain, useChangeCard, usePerson, whatGoes, type Change } from '@/api/people'
import type { Schemas } from '@/api/client'
import { useClock } from '@/lib/clock'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import TimelineList from '@/places/follow-up/TimelineList.vue'
import JoinDialog from './JoinDialog.vue'
import PersonBehind from './PersonBehind.vue'
import PersonFacts from './PersonFacts.vue'
import MenuRow from '@/parts/MenuRow.vue'

/** One person: the facts with where they are from, and everything that happened. */
const route = useRoute()
const router = useRouter()
const notices = useNotices()
const again = useAgain()
const may = useMay()
const { zone, now } = useClock()
const id = computed(() => Number(route.params.id))
const { data: one, error, refetch } = usePerson(id)
const change = useChangeCard()
const note = ref('')
const called = computed(() => one.value?.name || one.value?.addresses[0]?.shown || `Somebody no. ${id.value}`)

async function put(what: Change) {
  try {
    await change.mutateAsync({ id: one.value?.id ?? id.value, change: what })
    return true
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
    return false
  }
}
async function keepNote() {
  const text = note.value.trim()
  if (text && (await put({ do: 'note', text }))) note.value = ''
}
async function undo(merge: number) {
  try {
    const other = await part(merge)
    notices.say(`${other.name || 'The other card'} has a card of their own again.`)
    await again()
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}

const looking = ref(false)
const words = ref('')
const found = ref<Awaited<ReturnType<typeof find>>>([])
const other = ref<number | null>(null)
async function look() {
  found.value = (words.value.trim() ? await find(words.value) : []).filter(
    (hit) => hit.person_id !== one.value?.id,
  )
}

const goes = ref<Schemas['ErasingOut'] | null>(null)
async function really() {
  try {
    await erase(one.value?.id ?? id.value)
    notices.say(`${called.value} is being erased.`)
    await router.push('/people')
    await again()
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
  }
}
</script>

<template>
  <div class="mx-auto w-full max-w-[80rem] p-5 max-md:p-3">
    <ErrorBox :error="error" :again="() => refetch()" />
    <template v-if="one">
      <div class="mb-4 flex flex-wrap items-center gap-2">
        <RouterLink v-if="may('everybody')" to="/people" class="btn px-2!" aria-label="Back to all people"
          >←</RouterLink
        >
        <h1 class="min-w-0 flex-1 truncate max-md:order-last max-md:basis-full" dir="auto">{{ called }}</h1>
        <button type="button" class="btn" @click="looking = !looking">Join with another card …</button>
        <Menu as="div" class="relative">
          <MenuButton class="btn">More</MenuButton>
          <MenuItems class="pop absolute right-0 mt-1 w-64">
            <template v-if="may('everybody')">
              <MenuRow :href="`/api/people/${one.id}/export?form=page`" target="_blank"
                >Everything about them, to read</MenuRow
              >
              <MenuRow :href="`/api/people/${one.id}/export?form=json`" download
                >Everything about them, as data</MenuRow
              >
            </template>
            <MenuRow v-if="may('business')" bad @click="whatGoes(id).then((said) => (goes = said))"
              >Erase them …</MenuRow
            >
          </MenuItems>
        </Menu>
      </div>

      <section v-if="looking" class="sheet mb-4 p-3" aria-label="Join with another card">
        <label class="grid max-w-md gap-1 text-sm text-ink-2"
          >Which card is theirs as well? Find it by name or address<input
            v-model="words"
            class="input"
            type="search"
            @input="look"
        /></label>
        <ul class="mt-2 grid gap-1">
          <li v-for="hit in found" :key="hit.person_id" class="flex flex-wrap items-center gap-2">
            <span class="min-w-0 flex-1" dir="auto"
              >{{ hit.name || hit.address }}
              <span class="text-ink-2">{{ hit.name ? hit.address : '' }}</span></span
            >
            <button type="button" class="btn" @click="other = hit.person_id">Look and join …</button>
          </li>
        </ul>
      </section>

      <ul
        v-if="one.perhaps_same.length"
        class="sheet mb-4 grid gap-2 p-3"
        aria-label="Perhaps of the same person"
      >
        <li v-for="each in one.perhaps_same" :key="each.id" class="flex flex-wrap items-center gap-2">
          <span class="min-w-0 flex-1"
            ><strong class="text-brass">▲ Perhaps the same person</strong>: the same phone number is on the
            card of
            <RouterLink class="btn-link" :to="`/people/${each.id}`" dir="auto">{{
              each.name || each.addresses[0]
            }}</RouterLink></span
          >
          <button type="button" class="btn" @click="other = each.id">Look and join …</button>
        </li>
      </ul>

      <section
        v-if="goes"
        class="sheet mb-4 border-rust! p-4"
        role="alertdialog"
        aria-labelledby="erase-title"
      >
        <h2 id="erase-title" class="mb-1">Erase {{ called }}?</h2>
        <p class="mb-1">This cannot be undone. What goes:</p>
        <ul class="mb-2 list-disc pl-5">
          <li v-for="each in goes.goes" :key="each">{{ each }}</li>
        </ul>
        <p class="mb-3 text-ink-2">What stays: {{ goes.stays }}</p>
        <div class="flex gap-2">
          <button type="button" class="btn text-rust" @click="really">Erase everything of theirs</button>
          <button type="button" class="btn" @click="goes = null">Cancel</button>
        </div>
      </section>

      <div class="grid grid-cols-[22rem_minmax(0,1fr)] items-start gap-4 max-lg:grid-cols-1">
        <div class="grid gap-4">
          <PersonFacts :one="one" :put="put" />
          <PersonBehind :one="one" @parted="undo" />
        </div>

        <section class="sheet min-w-0 p-4" aria-labelledby="time-title">
          <h2 id="time-title" class="mb-3">What happened</h2>
          <TimelineList :events="one.timeline" :zone="zone" :now="now" />
          <form class="mt-4 grid gap-2" @submit.prevent="keepNote">
            <textarea
              v-model="note"
              class="input"
              rows="2"
              aria-label="A note, for us alone"
              placeholder="A note, for us alone"
              maxlength="10000"
            />
            <button v-if="note.trim()" class="btn w-fit">Keep the note</button>
          </form>
        </section>
      </div>
      <JoinDialog
        v-if="other !== null"
        :kept="one.id"
        :gone="other"
        @close="((other = null), (looking = false))"
      />
    </template>
    <div v-else-if="!error" class="h-60 rounded bg-sheet" aria-busy="true" />
  </div>
</template>
