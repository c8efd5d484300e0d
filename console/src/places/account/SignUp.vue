<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { signUp } from '@/api/account'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import AccountSheet from './AccountSheet.vue'
import { useForm } from '@/parts/form'

const route = useRoute()
// An invitation says for which address it is.
const email = ref(typeof route.query.email === 'string' ? route.query.email : '')
const password = ref('')
const { error, fields, busy, run } = useForm()
const router = useRouter()

async function go() {
  await signUp(email.value.trim(), password.value)
  await router.push('/verify')
}
</script>

<template>
  <AccountSheet title="Sign up">
    <form class="grid gap-3" novalidate @submit.prevent="run(go)">
      <ErrorBox v-if="!fields.email && !fields.password" :error="error" />
      <TextField
        v-model="email"
        label="Email"
        type="email"
        autocomplete="username"
        :error="fields.email"
        hint="We send one mail to confirm it."
      />
      <TextField
        v-model="password"
        label="Password"
        type="password"
        autocomplete="new-password"
        :error="fields.password"
        hint="At least 10 characters."
      />
      <button class="btn btn-main justify-center" :disabled="busy">Sign up</button>
    </form>
    <p class="mt-5"><RouterLink to="/sign-in" class="btn-link">I have an account already</RouterLink></p>
  </AccountSheet>
</template>
