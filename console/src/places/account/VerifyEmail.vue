<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { startAnew, verify } from '@/api/account'
import ErrorBox from '@/parts/ErrorBox.vue'
import AccountSheet from './AccountSheet.vue'
import { useForm } from '@/parts/form'

const route = useRoute()
const key = computed(() => String(route.params.key ?? ''))
const { error, busy, run } = useForm()

async function go() {
  const signedIn = await verify(key.value)
  startAnew(signedIn ? '/follow-up' : '/sign-in')
}
</script>

<template>
  <AccountSheet :title="key ? 'Confirm your email address' : 'Look in your mail'">
    <template v-if="key">
      <ErrorBox :error="error" />
      <p class="mb-4 text-ink-2">One click, and your address is confirmed.</p>
      <!-- A button, since mail scanners open links. -->
      <button type="button" class="btn btn-main" :disabled="busy" @click="run(go)">Confirm my address</button>
    </template>
    <p v-else class="text-ink-2">We have sent you a mail with a link. Open it on this computer to go on.</p>
    <p class="mt-5"><RouterLink to="/sign-in" class="btn-link">To sign in</RouterLink></p>
  </AccountSheet>
</template>
