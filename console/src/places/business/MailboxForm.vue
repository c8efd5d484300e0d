<script setup lang="ts">
import { ref, watch } from 'vue'
import { leaveMailbox, readFrom, useMailbox } from '@/api/mail-in'
import { useMe } from '@/api/me'
import { useForm } from '@/parts/form'
import { useClock } from '@/lib/clock'
import { useNotices } from '@/lib/notices'
import { saidTime } from '@/lib/time'
import TextField from '@/parts/TextField.vue'
import { vTakesFocus } from '@/lib/focus'

/**
 * For a mail host that cannot post what comes in: its mailbox is opened every minute, and what is new is
 * taken in.
 */
const { data: box, refetch } = useMailbox()
const { data: me } = useMe()
const { now } = useClock()
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const open = ref(false)
const said = ref({ host: '', port: '993', user: '', password: '', folder: 'INBOX' })
watch(
  box,
  (row) =>
    row &&
    (said.value = {
      host: row.host,
      port: String(row.port),
      user: row.user,
      password: '',
      folder: row.folder,
    }),
  {
    immediate: true,
  },
)
const save = () =>
  run(async () => {
    await readFrom({ ...said.value, port: Number(said.value.port) || 0 })
    await refetch()
    open.value = false
    notices.say('The mailbox is read every minute from now on.')
  })
const leave = () =>
  run(async () => {
    await leaveMailbox()
    await refetch()
    open.value = false
    notices.say('The mailbox is read no more.')
  })
</script>

<template>
  <section class="mt-4 border-t border-line-2 pt-3" aria-label="A mailbox that is read">
    <p v-if="box" class="text-sm" :class="box.wrong ? 'text-rust' : 'text-ink-2'" role="status">
      <template v-if="box.wrong">▲ {{ box.user }} could not be read: {{ box.wrong }}</template>
      <template v-else
        >{{ box.user }} is read every minute<template v-if="box.read_at && me?.business"
          >; last {{ saidTime(box.read_at, now, me.business.timezone) }}</template
        >. What is new there is taken in, and marked as read.</template
      >
    </p>
    <p v-else-if="!open" class="text-sm text-ink-2">
      Where your mail host cannot do that, your mailbox can be read instead.
    </p>
    <form v-if="open" v-takes-focus class="mt-2 grid gap-3" novalidate @submit.prevent="save">
      <TextField
        v-model="said.host"
        label="Mail host (IMAP)"
        :error="fields.host"
        hint="Like imap.your-host.example; it is spoken to encrypted."
      />
      <TextField v-model="said.port" label="Port" :error="fields.port" />
      <TextField v-model="said.user" label="Name" autocomplete="off" :error="fields.user" />
      <TextField
        v-model="said.password"
        label="Password"
        type="password"
        autocomplete="off"
        :error="fields.password"
        :hint="box ? 'Left empty, it stays as it is.' : 'Kept sealed; best one that is for this alone.'"
      />
      <TextField v-model="said.folder" label="Folder" :error="fields.folder" />
      <p v-if="error && !Object.keys(fields).length" class="font-semibold text-rust" role="alert">
        {{ error.message }}
      </p>
      <p class="flex flex-wrap gap-2">
        <button class="btn btn-main" :disabled="busy">{{ busy ? 'Opening it …' : 'Read it' }}</button>
        <button type="button" class="btn" @click="open = false">Cancel</button>
        <button v-if="box" type="button" class="btn ml-auto" :disabled="busy" @click="leave">
          Read it no more
        </button>
      </p>
    </form>
    <button v-else type="button" class="btn mt-2" @click="open = true">
      {{ box ? 'Change it' : 'Read a mailbox …' }}
    </button>
  </section>
</template>
