<script setup lang="ts">
import { ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import {
  firstCodes,
  newCodes,
  offerAuthenticator,
  readAuthenticator,
  startAuthenticator,
  stopAuthenticator,
} from '@/api/account'
import { qrOf } from '@/api/me'
import { useClock } from '@/lib/clock'
import { shortDate } from '@/lib/time'
import TextField from '@/parts/TextField.vue'
import { useGuarded } from './again'
import KeptCodes from './KeptCodes.vue'
import PasswordAgain from './PasswordAgain.vue'
import { vTakesFocus } from '@/lib/focus'

/** A second step when signing in: the code of an authenticator, and codes kept for when it is lost. */
const { data: on, refetch } = useQuery({ queryKey: ['authenticator'], queryFn: readAuthenticator })
const { error, fields, busy, waiting, guarded, again, never } = useGuarded()
const { zone } = useClock()
const picture = ref('')
const secret = ref('')
const code = ref('')
const codes = ref<string[]>([])

const setUp = () =>
  guarded(async () => {
    const offered = await offerAuthenticator()
    secret.value = offered.secret
    picture.value = await qrOf(offered.url)
  })
const start = () =>
  guarded(async () => {
    await startAuthenticator(code.value)
    codes.value = await firstCodes()
    code.value = picture.value = secret.value = ''
    await refetch()
  })
const stop = () =>
  guarded(async () => {
    await stopAuthenticator()
    codes.value = []
    await refetch()
  })
const others = () =>
  guarded(async () => {
    codes.value = await newCodes()
    await refetch()
  })
/** A secret is read in groups of four. */
const inFours = (secret: string) => secret.replace(/(.{4})(?=.)/g, '$1 ')
</script>

<template>
  <article id="steps" class="sheet p-5" aria-labelledby="steps-title">
    <h2 id="steps-title" class="mb-1">A second step when you sign in</h2>
    <template v-if="on">
      <p class="text-ink-2">
        Since {{ shortDate(new Date(on.since * 1000), zone) }}, signing in asks for the code of your
        authenticator as well. {{ on.codes }} kept {{ on.codes === 1 ? 'code is' : 'codes are' }} left for
        when you lose it.
      </p>
      <p class="mt-3 flex flex-wrap gap-2">
        <button type="button" class="btn" :disabled="busy" @click="others">Make new codes to keep</button>
        <button type="button" class="btn" :disabled="busy" @click="stop">Sign in without it again</button>
      </p>
    </template>
    <template v-else>
      <p class="text-ink-2">
        A password can be seen or guessed. With an authenticator on your phone, that alone is not enough.
      </p>
      <form
        v-if="picture"
        v-takes-focus
        class="mt-3 flex flex-wrap items-start gap-5"
        novalidate
        @submit.prevent="start"
      >
        <!-- eslint-disable vue/no-v-html -- drawn by our own server from the account's secret -->
        <span
          class="rounded border border-line bg-sheet p-1"
          role="img"
          aria-label="QR code for your authenticator"
          v-html="picture"
        />
        <!-- eslint-enable vue/no-v-html -->
        <div class="grid min-w-64 flex-1 gap-3">
          <p>
            Read this with the authenticator on your phone, or type there:
            <code class="block break-all text-petrol select-all">{{ inFours(secret) }}</code>
          </p>
          <TextField
            v-model="code"
            label="The code it shows now"
            autocomplete="one-time-code"
            :error="waiting ? undefined : fields.code"
          />
          <p class="flex gap-2">
            <button class="btn btn-main" :disabled="busy || !code.trim()">Turn on</button>
            <button type="button" class="btn" @click="picture = ''">Cancel</button>
          </p>
        </div>
      </form>
      <p v-else class="mt-3">
        <button type="button" class="btn" :disabled="busy" @click="setUp">Set it up</button>
      </p>
    </template>
    <KeptCodes v-if="codes.length" :codes="codes" @kept="codes = []" />
    <PasswordAgain
      v-if="waiting"
      :error="fields.password ?? error?.message"
      :busy="busy"
      @said="again"
      @cancel="never"
    />
    <p v-else-if="error && !fields.code" class="mt-2 font-semibold text-rust" role="alert">
      {{ error.message }}
    </p>
  </article>
</template>
