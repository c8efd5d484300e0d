<script setup lang="ts">
import { ref } from 'vue'
import { dropTag, renameTag, useAgain, useCountedTags } from '@/api/people'
import { useNotices } from '@/lib/notices'
import { vTyped } from '@/lib/typed'
import DialogBox from '@/parts/DialogBox.vue'

/** Every tag: called otherwise everywhere, made one with another, or taken away everywhere. */
const emit = defineEmits<{ close: [] }>()
const { data: tags } = useCountedTags()
const notices = useNotices()
const again = useAgain()
const asked = ref('')
const wrong = ref('')
const people = (count: number) => (count === 1 ? 'one person' : `${count} people`)
async function rename(tag: string, name: string) {
  if (!name.trim() || name.trim() === tag) return
  wrong.value = ''
  try {
    const both = tags.value?.some((one) => one.tag === name.trim())
    const { people: count } = await renameTag(tag, name)
    notices.say(
      both
        ? `“${tag}” and “${name.trim()}” are one tag now.`
        : `“${tag}” is “${name.trim()}” now, for ${people(count)}.`,
    )
    await again()
  } catch (problem) {
    wrong.value = problem instanceof Error ? problem.message : 'This did not work.'
  }
}
async function drop(tag: string) {
  asked.value = ''
  const { people: count } = await dropTag(tag)
  notices.say(`“${tag}” is taken off ${people(count)}.`)
  await again()
}
</script>

<template>
  <DialogBox title="Tags" class="w-[30rem]" @close="emit('close')">
    <p class="mb-3 text-sm text-ink-2">A tag that is called like another becomes one with it.</p>
    <p v-if="!tags?.length" class="text-ink-2">Nobody has a tag yet.</p>
    <ul class="grid gap-2">
      <li v-for="one in tags" :key="one.tag" class="flex flex-wrap items-center gap-2">
        <input
          v-typed="one.tag"
          class="input w-52!"
          :aria-label="`Name of the tag ${one.tag}`"
          maxlength="60"
          @change="rename(one.tag, ($event.target as HTMLInputElement).value)"
        />
        <span class="flex-1 text-sm text-ink-2">{{ people(one.people) }}</span>
        <template v-if="asked === one.tag">
          <button type="button" class="btn text-rust" @click="drop(one.tag)">
            Take off {{ people(one.people) }}
          </button>
          <button type="button" class="btn" @click="asked = ''">Cancel</button>
        </template>
        <button
          v-else
          type="button"
          class="btn"
          :aria-label="`Remove the tag ${one.tag}`"
          @click="asked = one.tag"
        >
          Remove …
        </button>
      </li>
    </ul>
    <p v-if="wrong" class="mt-2 font-semibold text-rust" role="alert">{{ wrong }}</p>
    <button type="button" class="btn mt-4" @click="emit('close')">Close</button>
  </DialogBox>
</template>
