<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { addPerson, useAgain } from '@/api/people'
import { useNotices } from '@/lib/notices'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/parts/form'
import DialogBox from '@/parts/DialogBox.vue'

/** Somebody put on the list by hand. */
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const notices = useNotices()
const again = useAgain()
const form = useForm()
const name = ref('')
const email = ref('')
const phone = ref('')
async function save() {
  const found = await addPerson({ name: name.value, email: email.value, phone: phone.value })
  await again()
  if (!found.new) notices.say('They were on the list already.')
  emit('close')
  await router.push(`/people/${found.id}`)
}
</script>

<template>
  <DialogBox title="Put somebody on the list" class="w-[26rem]" @close="emit('close')">
    <form class="grid gap-3" novalidate @submit.prevent="form.run(save)">
      <TextField v-model="name" label="Name" :error="form.fields.value.name" />
      <TextField v-model="email" label="Email" type="email" :error="form.fields.value.email" />
      <TextField v-model="phone" label="Phone" :error="form.fields.value.phone" />
      <p class="text-sm text-ink-2">They have agreed to nothing by this: news may not be sent to them.</p>
      <p
        v-if="form.error.value && !Object.keys(form.fields.value).length"
        class="font-semibold text-rust"
        role="alert"
      >
        {{ form.error.value.message }}
      </p>
      <div class="flex gap-2">
        <button class="btn btn-main" :disabled="form.busy.value">Add</button>
        <button type="button" class="btn" @click="emit('close')">Cancel</button>
      </div>
    </form>
  </DialogBox>
</template>
