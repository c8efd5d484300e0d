<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { find } from '@/api/follow-ups'
import { useMay } from '@/api/me'
import { erase, part, useAgain, useChangeCard, useCountedTags, usePerson, useWorkWith, whatGoes, type Change } from '@/api/people'
import type { Schemas } from '@/api/client'
import { useClock } from '@/lib/clock'
import { useNotices } from '@/lib/notices'
import { telOf } from '@/lib/tel'
import { saidTime } from '@/lib/time'
import { vTyped } from '@/lib/typed'
import ErrorBox from '@/parts/ErrorBox.vue'
import TimelineList from '@/places/follow-up/TimelineList.vue'
import { KINDS, STATES } from '@/places/follow-up/words'
import JoinDialog from './JoinDialog.vue'

/** One person: the facts with where they are from, and everything that happened. */
const route = useRoute()
const router = useRouter()
const notices = useNotices()
const again = useAgain()
const may = useMay()
const { zone, now } = useClock()
const id = computed(() => Number(route.params.id))
const { data: one, error, refetch } = usePerson(id)
const { data: works } = useWorkWith(computed(() => one.value?.id ?? id.value))
const { data: tags } = useCountedTags()
const change = useChangeCard()
const address = ref('')
const tag = ref('')
const note = ref('')
const called = computed(() => one.value?.name || one.value?.addresses[0]?.shown || 'Somebody')

async function put(what: Change) {
  try {
    await change.mutateAsync({ id: one.value?.id ?? id.value, change: what })
    return true
  } catch (problem) {
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
    return false
  }
}
async function more(what: 'address' | 'tag' | 'note') {
  const box = { address, tag, note }[what]
  const text = box.value.trim()
  const change: Change = what === 'tag' ? { do: 'tag', tag: text, on: true } : { do: what, text }
  if (text && (await put(change))) box.value = ''
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
  found.value = (words.value.trim() ? await find(words.value) : []).filter((hit) => hit.person_id !== one.value?.id)
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
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="mx-auto w-full max-w-[80rem] p-5 max-md:p-3">
    <ErrorBox :error="error" :again="() => refetch()" />
    <template v-if="one">
      <div class="mb-4 flex flex-wrap items-center gap-2">
        <RouterLink to="/people" class="btn px-2!" aria-label="Back to all people">←</RouterLink>
        <h1 class="min-w-0 flex-1 truncate max-md:order-last max-md:basis-full" dir="auto">{{ called }}</h1>
        <button type="button" class="btn" @click="looking = !looking">Join with another card …</button>
        <Menu as="div" class="relative">
          <MenuButton class="btn">More</MenuButton>
          <MenuItems class="pop absolute right-0 mt-1 w-64">
            <MenuItem v-slot="{ active }"
              ><a
                :href="`/api/people/${one.id}/export?form=page`"
                target="_blank"
                class="block rounded px-2 py-1.5"
                :class="{ 'bg-petrol-wash': active }"
                >Everything about them, to read</a
              ></MenuItem
            >
            <MenuItem v-slot="{ active }"
              ><a
                :href="`/api/people/${one.id}/export?form=json`"
                download
                class="block rounded px-2 py-1.5"
                :class="{ 'bg-petrol-wash': active }"
                >Everything about them, as data</a
              ></MenuItem
            >
            <MenuItem v-if="may('business')" v-slot="{ active }"
              ><button
                type="button"
                class="w-full rounded px-2 py-1.5 text-left text-rust"
                :class="{ 'bg-petrol-wash': active }"
                @click="whatGoes(id).then((said) => (goes = said))"
              >
                Erase them …
              </button></MenuItem
            >
          </MenuItems>
        </Menu>
      </div>

      <section v-if="looking" class="sheet mb-4 p-3" aria-label="Join with another card">
        <label class="grid max-w-md gap-1 text-sm text-ink-2"
          >Which card is theirs as well? Find it by name or address<input v-model="words" class="input" type="search" @input="look"
        /></label>
        <ul class="mt-2 grid gap-1">
          <li v-for="hit in found" :key="hit.person_id" class="flex flex-wrap items-center gap-2">
            <span class="min-w-0 flex-1" dir="auto"
              >{{ hit.name || hit.address }} <span class="text-ink-2">{{ hit.name ? hit.address : '' }}</span></span
            >
            <button type="button" class="btn" @click="other = hit.person_id">Look and join …</button>
          </li>
        </ul>
      </section>

      <ul v-if="one.perhaps_same.length" class="sheet mb-4 grid gap-2 p-3" aria-label="Perhaps of the same person">
        <li v-for="each in one.perhaps_same" :key="each.id" class="flex flex-wrap items-center gap-2">
          <span class="min-w-0 flex-1"
            ><strong class="text-brass">▲ Perhaps the same person</strong>: the same phone number is on the card of
            <RouterLink class="btn-link" :to="`/people/${each.id}`" dir="auto">{{ each.name || each.addresses[0] }}</RouterLink></span
          >
          <button type="button" class="btn" @click="other = each.id">Look and join …</button>
        </li>
      </ul>

      <section v-if="goes" class="sheet mb-4 border-rust! p-4" role="alertdialog" aria-labelledby="erase-title">
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

      <div class="grid grid-cols-[22rem_1fr] items-start gap-4 max-lg:grid-cols-1">
        <div class="grid gap-4">
          <section class="sheet grid gap-3 p-4" aria-label="Facts">
            <label class="grid gap-1 text-sm text-ink-2"
              >Name<input v-typed="one.name" class="input" maxlength="300" dir="auto" @change="put({ do: 'name', name: value($event) })"
            /></label>
            <div>
              <p class="text-sm text-ink-2">Addresses</p>
              <ul>
                <li v-for="each in one.addresses" :key="each.id" class="flex items-center gap-2 py-0.5">
                  <a v-if="each.kind === 'phone'" class="btn-link min-w-0 flex-1 break-all" :href="telOf(each.shown)">{{ each.shown }}</a>
                  <span v-else class="min-w-0 flex-1 break-all">{{ each.shown }}</span>
                  <button
                    type="button"
                    class="btn-link min-h-6 text-sm"
                    :aria-label="`Remove ${each.shown}`"
                    @click="put({ do: 'drop', address: each.id })"
                  >
                    remove
                  </button>
                </li>
              </ul>
              <form class="mt-1 flex gap-1" @submit.prevent="more('address')">
                <input
                  v-model="address"
                  class="input py-1!"
                  aria-label="Another email or phone"
                  placeholder="+ email or phone"
                  maxlength="320"
                />
                <button v-if="address.trim()" class="btn">Add</button>
              </form>
            </div>
            <div>
              <p class="text-sm text-ink-2">Tags</p>
              <p class="flex flex-wrap items-center gap-1.5">
                <span
                  v-for="each in one.tags"
                  :key="each.tag"
                  class="chip"
                  :title="each.given_by ? `given by ${each.given_by}` : 'your own'"
                  >{{ each.tag }}{{ each.given_by ? ' ·' : '' }}
                  <button
                    type="button"
                    class="ml-0.5"
                    :aria-label="`Take off ${each.tag}`"
                    @click="put({ do: 'tag', tag: each.tag, on: false })"
                  >
                    ✕
                  </button></span
                >
              </p>
              <form class="mt-1 flex gap-1" @submit.prevent="more('tag')">
                <input
                  v-model="tag"
                  class="input w-36! py-1!"
                  aria-label="Another tag"
                  placeholder="+ tag"
                  list="all-tags"
                  maxlength="60"
                />
                <datalist id="all-tags"><option v-for="each in tags" :key="each.tag" :value="each.tag" /></datalist>
                <button v-if="tag.trim()" class="btn">Add</button>
              </form>
            </div>
            <p class="text-sm text-ink-2">On the list since {{ saidTime(one.added_at, now, zone) }}</p>
          </section>

          <section class="sheet p-4" aria-labelledby="agreed-title">
            <h2 id="agreed-title" class="mb-1">What they agreed to</h2>
            <p v-if="!one.consents.length" class="text-ink-2">Nothing: news may not be sent to them.</p>
            <ul class="grid gap-2">
              <li v-for="each in one.consents" :key="each.proof">
                “{{ each.wording }}”
                <span class="block text-sm text-ink-2"
                  >{{ saidTime(each.given_at, now, zone) }}{{ each.page ? ` on ${each.page}` : ''
                  }}{{ each.confirmed_at ? `, confirmed by mail ${saidTime(each.confirmed_at, now, zone)}` : '' }}</span
                >
                <span v-if="each.withdrawn_at" class="block text-sm font-semibold text-rust"
                  >withdrawn {{ saidTime(each.withdrawn_at, now, zone) }}</span
                >
                <details class="text-sm text-ink-2">
                  <summary>proof</summary>
                  <code class="break-all">{{ each.proof }}</code>
                </details>
              </li>
            </ul>
          </section>

          <section v-if="works?.length" class="sheet p-4" aria-labelledby="work-title">
            <h2 id="work-title" class="mb-1">Follow-ups</h2>
            <ul class="grid gap-1">
              <li v-for="each in works" :key="each.id">
                <RouterLink class="btn-link" :to="`/follow-up/${each.id}`">{{
                  KINDS[each.kind as keyof typeof KINDS] ?? each.kind
                }}</RouterLink>
                <span class="text-ink-2">
                  · {{ STATES[each.state as keyof typeof STATES] ?? each.state }} · {{ saidTime(each.opened_at, now, zone) }}</span
                >
                <span v-if="each.excerpt" class="block truncate text-sm text-ink-2" dir="auto">{{ each.excerpt }}</span>
              </li>
            </ul>
          </section>

          <section v-if="one.merges.length" class="sheet p-4" aria-labelledby="joined-title">
            <h2 id="joined-title" class="mb-1">Joined cards</h2>
            <ul class="grid gap-1">
              <li v-for="each in one.merges" :key="each.id" class="flex items-center gap-2">
                <span class="min-w-0 flex-1" dir="auto">{{ each.name || 'without a name' }}, {{ saidTime(each.at, now, zone) }}</span>
                <button type="button" class="btn" @click="undo(each.id)">Make two again</button>
              </li>
            </ul>
          </section>
        </div>

        <section class="sheet min-w-0 p-4" aria-labelledby="time-title">
          <h2 id="time-title" class="mb-3">What happened</h2>
          <TimelineList :events="one.timeline" :zone="zone" :now="now" />
          <form class="mt-4 grid gap-2" @submit.prevent="more('note')">
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
      <JoinDialog v-if="other !== null" :kept="one.id" :gone="other" @close="((other = null), (looking = false))" />
    </template>
    <div v-else-if="!error" class="h-60 rounded bg-sheet" aria-busy="true" />
  </div>
</template>
