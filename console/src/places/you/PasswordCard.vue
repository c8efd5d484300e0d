<script setup lang="ts">
import { ref } from 'vue'
import { changePassword } from '@/api/account'
import { useMe } from '@/api/me'
import { useNotices } from '@/lib/notices'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/parts/form'

const { data: me } = useMe()
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const now = ref('')
const next = ref('')
async function change() {
  await changePassword(now.value, next.value)
  now.value = next.value = ''
  notices.say('Your new password holds from now on; every other browser is signed out.')
}
</script>

<template>
  <article id="password" class="sheet p-5" aria-labelledby="password-title">
    <h2 id="password-title" class="mb-2">Your password</h2>
    <form class="grid max-w-96 gap-2" novalidate @submit.prevent="run(change)">
      <input type="hidden" autocomplete="username" :value="me?.email" />
      <TextField
        v-model="now"
        label="The one you have"
        type="password"
        autocomplete="current-password"
        :error="fields.current_password"
      />
      <TextField
        v-model="next"
        label="The new one"
        type="password"
        autocomplete="new-password"
        hint="10 characters at least; a few words that nobody would guess are good."
        :error="fields.new_password"
      />
      <p v-if="error && !Object.keys(fields).length" class="font-semibold text-rust" role="alert">
        {{ error.message }}
      </p>
      <p><button class="btn" :disabled="busy || !now || !next">Change it</button></p>
    </form>
  </article>
</template>
