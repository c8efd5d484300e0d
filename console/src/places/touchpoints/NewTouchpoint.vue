<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { TouchpointDocument } from '@visitor/generated/document'
import { useMake, useStarters } from '@/api/touchpoints'
import { useForm } from '@/places/account/form'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import StageFrame from './StageFrame.vue'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const { data: starters } = useStarters()
const make = useMake()
const chosen = ref('')
const name = ref('')
const { error, fields, busy, run } = useForm()
watch(
  () => [props.open, starters.value] as const,
  () => {
    chosen.value ||= starters.value?.[0]?.key ?? ''
    if (props.open) name.value = ''
  },
)
async function go() {
  const starter = starters.value?.find((one) => one.key === chosen.value)
  const draft = await make.mutateAsync({ starter: chosen.value, name: name.value.trim() || (starter?.name ?? '') })
  await router.push(`/touchpoints/${draft.id}`)
}
// The API says "object" of a document; what it holds is told by its own schema.
const document = (found: unknown) => found as TouchpointDocument
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 overflow-auto p-6">
      <DialogPanel class="pop mx-auto max-w-3xl p-6">
        <DialogTitle as="h2" class="mb-1">What do you want from your visitors?</DialogTitle>
        <p class="mb-4 text-ink-2">Every word and colour can be changed next.</p>
        <form @submit.prevent="run(go)">
          <div class="mb-4 grid grid-cols-2 gap-4" role="radiogroup" aria-label="Starter">
            <label
              v-for="one in starters"
              :key="one.key"
              class="block cursor-pointer overflow-hidden rounded-lg border-2"
              :class="chosen === one.key ? 'border-petrol' : 'border-line'"
            >
              <div class="pointer-events-none h-64 overflow-hidden border-b border-line bg-fog" aria-hidden="true" inert>
                <StageFrame :document="document(one.document)" step="ask" :width="700" :height="600" :title="`Picture of ${one.name}`" />
              </div>
              <span class="flex gap-2 p-3"
                ><input v-model="chosen" type="radio" :value="one.key" name="starter" class="mt-1" /><span
                  ><strong>{{ one.name }}</strong
                  ><span class="block text-ink-2">{{ one.about }}</span></span
                ></span
              >
            </label>
          </div>
          <TextField v-model="name" label="Your own name for it" :error="fields.name" hint="Only you see it. Its link is made from it." />
          <ErrorBox v-if="!Object.keys(fields).length" :error="error" />
          <div class="mt-4 flex gap-2">
            <button class="btn btn-main" :disabled="busy || !chosen">Start with this</button
            ><button type="button" class="btn" @click="emit('close')">Cancel</button>
          </div>
        </form>
      </DialogPanel>
    </div>
  </Dialog>
</template>
