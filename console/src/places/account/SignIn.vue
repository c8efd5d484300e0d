<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { signIn, signInWithCode, startAnew } from '@/api/account'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import AccountSheet from './AccountSheet.vue'
import { inside, useForm } from '@/parts/form'
import { vTakesFocus } from '@/lib/focus'

const email = ref('')
const password = ref('')
const code = ref('')
/** Where to go on to once the code of the authenticator is given; empty while nothing asks for it. */
const asked = ref('')
const { error, fields, busy, run } = useForm()
const route = useRoute()
const router = useRouter()

async function go() {
  const came = await signIn(email.value.trim(), password.value)
  const next = inside(route.query.next)
  if (came === 'in') startAnew(next)
  else if (came === 'code') asked.value = next
  else await router.push('/verify')
}
async function second() {
  await signInWithCode(code.value)
  startAnew(asked.value)
}
</script>

<template>
  <AccountSheet title="Sign in">
    <form v-if="asked" v-takes-focus class="grid gap-3" novalidate @submit.prevent="run(second)">
      <ErrorBox v-if="!fields.code" :error="error" />
      <TextField
        v-model="code"
        label="Code of your authenticator"
        autocomplete="one-time-code"
        :error="fields.code"
        hint="Lost it? One of the codes that you kept does as well."
      />
      <button class="btn btn-main justify-center" :disabled="busy">Sign in</button>
    </form>
    <form v-else class="grid gap-3" novalidate @submit.prevent="run(go)">
      <p v-if="'set' in route.query" class="rounded-md bg-moss-tint px-3 py-2 text-moss">
        Your new password is set. Sign in with it.
      </p>
      <ErrorBox :error="error" />
      <TextField v-model="email" label="Email" type="email" autocomplete="username" />
      <TextField v-model="password" label="Password" type="password" autocomplete="current-password" />
      <button class="btn btn-main justify-center" :disabled="busy">Sign in</button>
    </form>
    <p class="mt-5 flex justify-between">
      <RouterLink to="/reset" class="btn-link">Forgotten the password?</RouterLink>
      <RouterLink to="/sign-up" class="btn-link">New here? Sign up</RouterLink>
    </p>
  </AccountSheet>
</template>
