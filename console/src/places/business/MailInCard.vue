<script setup lang="ts">
import { ref, watch } from 'vue'
import { useMailIn, useSetMailIn } from '@/api/mail-in'
import MailboxForm from './MailboxForm.vue'
import { useMe } from '@/api/me'
import { useForm } from '@/parts/form'
import { useClock } from '@/lib/clock'
import { useNotices } from '@/lib/notices'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import TickBox from '@/parts/fields/TickBox.vue'

/** Answers by mail: the mailbox they are sent to, and where the mail host hands them in. */
const { data, error: unread, refetch } = useMailIn()
const { data: me } = useMe()
const { now } = useClock()
const set = useSetMailIn()
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const address = ref('')
const direct = ref(true)
watch(
  data,
  (row) => {
    address.value = row?.address ?? ''
    direct.value = row?.direct ?? true
  },
  { immediate: true },
)
const save = () =>
  run(async () => {
    const to = await set.to(address.value, direct.value)
    notices.say(to ? `Answers are sent to ${to} from now on.` : 'Answers go where your mail is sent from.')
  })
const renew = () =>
  run(async () => {
    await set.renew()
    notices.say('The address before takes nothing any more.')
  })
async function copy(text: string) {
  await navigator.clipboard.writeText(text)
  notices.say('Copied.')
}
</script>

<template>
  <div id="mail-in" class="sheet p-5">
    <form class="grid gap-3" aria-labelledby="mail-in-title" novalidate @submit.prevent="save">
      <h2 id="mail-in-title">Answers by mail</h2>
      <ErrorBox :error="unread" :again="() => refetch()" />
      <template v-if="data?.own">
        <p class="text-sm text-ink-2">
          What people answer to your mails stands on their card, with the work for you again: answers come to
          an address that you have here.
        </p>
        <p class="flex items-start gap-2">
          <code class="min-w-0 flex-1 rounded bg-fog px-2 py-1.5 text-sm break-all">{{ data.own }}</code>
          <button type="button" class="btn" @click="copy(data.own)">Copy</button>
        </p>
        <TickBox :value="direct" @set="direct = $event"
          >Answers come to this address, as long as no mailbox stands below</TickBox
        >
        <p class="text-sm text-ink-2">
          They can come to a mailbox of your own as well. Then let your mail host post each mail that comes in
          to this address, as it came:
        </p>
      </template>
      <p v-else class="text-sm text-ink-2">
        What people answer to your mails can stand on their card, with the work for you again. Let your mail
        host post each mail that comes in to this address, as it came:
      </p>
      <p class="flex flex-wrap items-start gap-2">
        <code class="min-w-0 flex-1 rounded bg-fog px-2 py-1.5 text-sm break-all">{{ data?.url }}</code>
        <button type="button" class="btn" @click="copy(data?.url ?? '')">Copy</button>
        <button
          type="button"
          class="btn"
          :disabled="busy"
          title="The address above takes no mail any more then."
          @click="renew"
        >
          Another address
        </button>
      </p>
      <TextField
        v-model="address"
        :label="data?.own ? 'A mailbox of your own that they are sent to' : 'The mailbox they are sent to'"
        type="email"
        :error="fields.address"
        :hint="`It has to take what is sent to name+anything@… as well. Left empty, answers ${data?.own && direct ? 'come to the address above' : 'go where your mail is sent from'}.`"
      />
      <ErrorBox v-if="!Object.keys(fields).length" :error="error" />
      <p v-if="data" class="text-sm text-ink-2" role="status">
        {{
          data.last && me?.business
            ? `${data.count} came in; the last ${saidTime(data.last, now, me.business.timezone)}.`
            : 'None has come in yet.'
        }}
      </p>
      <button class="btn btn-main justify-self-start" :disabled="busy">Save</button>
    </form>
    <MailboxForm />
  </div>
</template>
