<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { startAnew } from '@/api/account'
import {
  changeMember,
  invite,
  renameMe,
  takeBack,
  takeOut,
  useInvitations,
  useMe,
  useMembers,
  workOf,
} from '@/api/me'
import { useNotices } from '@/lib/notices'
import { vTyped } from '@/lib/typed'
import { useForm } from '@/parts/form'

/** People of the business: who they are, what they may, who is invited; and one's own name. */
const { data: me } = useMe()
const { data: members } = useMembers()
const { data: invited } = useInvitations()
const queries = useQueryClient()
const notices = useNotices()
const inviting = useForm()
const changing = useForm()
const ROLES = {
  owner: 'Owner: everything',
  manager: 'Manager: hours and channels as well',
  staff: 'Staff: follow-up and touchpoints',
}
const owner = computed(() => me.value?.member?.role === 'owner')
const email = ref('')
const name = ref('')
const role = ref('staff')
const leaving = ref<number | null>(null)
const fresh = () => queries.invalidateQueries()

async function send() {
  await invite({ email: email.value, role: role.value, name: name.value })
  notices.say(`${email.value} is invited by mail.`)
  email.value = name.value = ''
  await fresh()
}
const change = (work: () => Promise<unknown>, words: string) =>
  changing.run(async () => {
    await work()
    await fresh()
    notices.say(words)
  })
/** What is open and theirs, and to whom it goes. */
const work = ref(0)
const heir = ref<number | null>(null)
async function asks(id: number) {
  heir.value = null
  await changing.run(async () => {
    work.value = await workOf(id)
    leaving.value = id
  })
}
async function out(id: number) {
  leaving.value = null
  await changing.run(async () => {
    await takeOut(id, heir.value)
    if (id === me.value?.member?.id) startAnew('/follow-up')
    else await fresh()
  })
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <article id="people" class="sheet p-5" aria-labelledby="people-title">
    <h2 id="people-title" class="mb-2">People of the business</h2>
    <ul class="grid">
      <li
        v-for="one in members"
        :key="one.id"
        class="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line-2 py-2.5"
      >
        <span class="min-w-0 flex-1">
          <input
            v-if="one.id === me?.member?.id"
            v-typed="one.name"
            class="input w-56!"
            aria-label="Your name"
            maxlength="120"
            @change="change(() => renameMe(value($event)), 'Others read your new name.')"
          />
          <strong v-else>{{ one.name }}</strong>
          <span class="block text-sm text-ink-2">{{ one.email }}</span>
        </span>
        <input
          v-typed="one.initials"
          class="input w-16! text-center"
          :aria-label="`Initials of ${one.name}`"
          maxlength="3"
          :disabled="!owner"
          @change="
            change(() => changeMember(one.id, { role: one.role, initials: value($event) }), 'Changed.')
          "
        />
        <select
          class="input w-auto!"
          :aria-label="`Role of ${one.name}`"
          :value="one.role"
          :disabled="!owner"
          @change="
            change(
              () => changeMember(one.id, { role: value($event), initials: one.initials }),
              'Changed.',
            ).then(fresh)
          "
        >
          <option v-for="(words, key) in ROLES" :key="key" :value="key">{{ words }}</option>
        </select>
        <label
          v-if="one.role !== 'owner'"
          class="order-last flex w-full items-center gap-2 text-sm text-ink-2"
        >
          <input
            type="checkbox"
            :checked="one.sees_everybody"
            :disabled="!owner"
            @change="
              change(
                () =>
                  changeMember(one.id, {
                    role: one.role,
                    initials: one.initials,
                    sees_everybody: !one.sees_everybody,
                  }),
                one.sees_everybody
                  ? `${one.name} works the list, and sees no list of everybody.`
                  : 'Changed.',
              )
            "
          />
          Sees everybody: the list of people, what is taken out and brought in
        </label>
        <template v-if="leaving === one.id">
          <span class="w-full text-sm text-ink-2"
            >{{ one.id === me?.member?.id ? 'You' : one.name }} will see nothing of this business any more.
            What they did stays.</span
          >
          <label v-if="work" class="grid text-sm text-ink-2"
            >{{ work }} open {{ work === 1 ? 'follow-up is' : 'follow-ups are' }} theirs: who gets
            {{ work === 1 ? 'it' : 'them' }}?
            <select v-model="heir" class="input w-auto!">
              <option :value="null">Everybody</option>
              <option
                v-for="other in members?.filter((other) => other.id !== one.id)"
                :key="other.id"
                :value="other.id"
              >
                {{ other.name }}
              </option>
            </select>
          </label>
          <button type="button" class="btn text-rust" @click="out(one.id)">
            {{ one.id === me?.member?.id ? 'Leave' : 'Take out' }}
          </button>
          <button type="button" class="btn" @click="leaving = null">Cancel</button>
        </template>
        <button
          v-else-if="owner || one.id === me?.member?.id"
          type="button"
          class="btn"
          @click="asks(one.id)"
        >
          {{ one.id === me?.member?.id ? 'Leave …' : 'Take out …' }}
        </button>
      </li>
      <li
        v-for="one in invited"
        :key="`i${one.id}`"
        class="flex flex-wrap items-center gap-3 border-t border-line-2 py-2.5"
      >
        <span class="min-w-0 flex-1"
          ><strong>{{ one.name || one.email }}</strong>
          <span class="text-ink-2">is invited as {{ one.role }}</span></span
        >
        <button
          v-if="owner"
          type="button"
          class="btn"
          :aria-label="`Take back the invitation of ${one.email}`"
          @click="change(() => takeBack(one.id), 'The invitation is taken back.')"
        >
          Take back
        </button>
      </li>
    </ul>
    <p v-if="changing.error.value" class="font-semibold text-rust" role="alert">
      {{ Object.values(changing.fields.value)[0] ?? changing.error.value.message }}
    </p>
    <form
      v-if="owner"
      class="mt-3 flex flex-wrap items-end gap-2 border-t border-line-2 pt-3"
      novalidate
      @submit.prevent="inviting.run(send)"
    >
      <label class="grid text-sm text-ink-2"
        >Email<input v-model="email" type="email" class="input w-60!"
      /></label>
      <label class="grid text-sm text-ink-2"
        >Name<input v-model="name" class="input w-40!" maxlength="120"
      /></label>
      <label class="grid text-sm text-ink-2"
        >Role<select v-model="role" class="input w-auto!">
          <option v-for="(words, key) in ROLES" :key="key" :value="key">{{ words }}</option>
        </select></label
      >
      <button class="btn" :disabled="inviting.busy.value">Invite</button>
      <p v-if="inviting.error.value" class="w-full font-semibold text-rust" role="alert">
        {{ Object.values(inviting.fields.value)[0] ?? inviting.error.value.message }}
      </p>
    </form>
  </article>
</template>
