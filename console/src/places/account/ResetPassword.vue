<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { requestReset, resetPassword, startAnew } from '@/api/account'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import AccountSheet from './AccountSheet.vue'
import { useForm } from '@/parts/form'

const route = useRoute()
const key = computed(() => String(route.params.key ?? ''))
const email = ref('')
const password = ref('')
const sent = ref(false)
const { error, fields, busy, run } = useForm()

async function ask() {
  await requestReset(email.value.trim())
  sent.value = true
}
async function set() {
  const signedIn = await resetPassword(key.value, password.value)
  startAnew(signedIn ? '/follow-up' : '/sign-in?set')
}
</script>

<template>
  <AccountSheet :title="key ? 'Choose a new password' : 'Forgotten the password?'">
    <ErrorBox v-if="!fields.email && !fields.password" :error="error" />
    <form v-if="key" class="grid gap-3" novalidate @submit.prevent="run(set)">
      <TextField
        v-model="password"
        label="New password"
        type="password"
        autocomplete="new-password"
        :error="fields.password"
        hint="At least 10 characters."
      />
      <button class="btn btn-main justify-center" :disabled="busy">Set it</button>
    </form>
    <p v-else-if="sent" class="text-ink-2">
      If there is an account with this address, a mail with a link is on its way.
    </p>
    <form v-else class="grid gap-3" novalidate @submit.prevent="run(ask)">
      <TextField v-model="email" label="Email" type="email" autocomplete="username" :error="fields.email" />
      <button class="btn btn-main justify-center" :disabled="busy">Send me a link</button>
    </form>
    <p class="mt-5"><RouterLink to="/sign-in" class="btn-link">Back to sign in</RouterLink></p>
  </AccountSheet>
</template>
