<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { join, notOne, part, previewJoin, useAgain } from '@/api/people'
import { useNotices } from '@/lib/notices'
import ErrorBox from '@/parts/ErrorBox.vue'
import DialogBox from '@/parts/DialogBox.vue'

/** Two cards side by side: what joins, what clashes, and which name stays; it can be undone at any time. */
const props = defineProps<{ kept: number; gone: number }>()
const emit = defineEmits<{ close: []; joined: [id: number] }>()
const notices = useNotices()
const again = useAgain()
const name = ref<'kept' | 'gone'>('kept')
const { data: said, error } = useQuery({
  queryKey: computed(() => ['join-preview', props.kept, props.gone, name.value]),
  queryFn: () => previewJoin(props.kept, { gone_id: props.gone, name: name.value }),
  placeholderData: (before) => before,
  gcTime: 0,
})
const wrong = ref('')
async function go() {
  try {
    const made = await join(props.kept, { gone_id: props.gone, name: name.value })
    notices.say(`${said.value?.name || 'The two cards'}: one card now.`, {
      undo: () => part(made.merge),
    })
    emit('joined', made.id)
    emit('close')
    await again()
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This did not work.'
  }
}
async function no() {
  await notOne(props.kept, props.gone)
  emit('close')
  await again()
}
</script>

<template>
  <DialogBox title="Join two cards" class="w-[32rem]" @close="emit('close')">
    <ErrorBox :error="error" />
    <template v-if="said">
      <fieldset v-if="said.names_clash" class="mb-3 grid gap-1">
        <legend class="mb-1 font-semibold">They have two names: which stays?</legend>
        <label class="flex items-center gap-2" dir="auto"
          ><input v-model="name" type="radio" value="kept" /> {{ said.kept_name }}</label
        >
        <label class="flex items-center gap-2" dir="auto"
          ><input v-model="name" type="radio" value="gone" /> {{ said.gone_name }}</label
        >
      </fieldset>
      <p v-else class="mb-3">
        The card is called <strong dir="auto">{{ said.name || 'nothing yet' }}</strong>.
      </p>
      <p class="font-semibold">What comes to it</p>
      <ul class="mb-3 list-disc pl-5">
        <li v-for="one in said.joins" :key="one" class="break-all" dir="auto">{{ one }}</li>
        <li v-if="!said.joins.length" class="text-ink-2">nothing new</li>
      </ul>
      <template v-if="said.doubles.length">
        <p class="font-semibold">What both have, and stays once</p>
        <ul class="mb-3 list-disc pl-5">
          <li v-for="one in said.doubles" :key="one" class="break-all" dir="auto">{{ one }}</li>
        </ul>
      </template>
      <p class="mb-4 text-sm text-ink-2">It can be undone at any time, on the card.</p>
      <p v-if="wrong" class="mb-2 font-semibold text-rust" role="alert">{{ wrong }}</p>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="btn btn-main" @click="go">Join them</button>
        <button type="button" class="btn" @click="no">They are two people</button>
        <button type="button" class="btn" @click="emit('close')">Cancel</button>
      </div>
    </template>
  </DialogBox>
</template>
