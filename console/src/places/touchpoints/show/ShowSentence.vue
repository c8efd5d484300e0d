<script setup lang="ts">
import { computed } from 'vue'
import { useKnownSites } from '@/api/sites'
import { useShowWords, type Draft } from '@/api/touchpoints'
import type { Change, TouchpointDocument } from '@/api/document'
import DuringPanel from './DuringPanel.vue'
import MomentsPanel from './MomentsPanel.vue'
import OftenPanel from './OftenPanel.vue'
import { emptySentence, type Sentence, type Show } from './sentence'
import SentencePiece from './SentencePiece.vue'
import UntilPanel from './UntilPanel.vue'
import WherePanel from './WherePanel.vue'
import WhoPanel from './WhoPanel.vue'

/** The rules of a touchpoint as sentences; each piece opens its own small panel. */
const props = defineProps<{ document: TouchpointDocument; draft: Draft }>()
const emit = defineEmits<{ change: Change; forget: [] }>()
const show = computed(() => props.document.show)

function set(at: number, patch: Partial<Sentence>) {
  emit('change', `show.${at}.${Object.keys(patch)[0]}`, (document) =>
    Object.assign(document.show.sentences[at] ?? {}, patch),
  )
}
const { data: words } = useShowWords(show)
const piece = (at: number, name: 'where' | 'who' | 'moments' | 'during') =>
  words.value?.sentences[at]?.[name] ?? '…'
const { data: sites } = useKnownSites()
/** The visit's cap, where it will stop this one. */
const capped = computed(() => {
  const placed = sites.value?.find((one) => one.id === props.draft.sites[0]?.id)
  const most = placed?.rules.most_interruptions ?? null
  const interrupts = ['pop-up', 'card', 'side-panel', 'full-page'].includes(props.document.stance)
  return most !== null && interrupts && show.value.sentences.some((one) => one.moments.length)
    ? most === 1
      ? 'once'
      : `${most} times`
    : ''
})
const rules = (patch: Partial<Show>) =>
  emit('change', `show.${Object.keys(patch)[0]}`, (document) => Object.assign(document.show, patch))
const add = () =>
  emit('change', 'show.sentences', (document) => document.show.sentences.push(emptySentence()))
const drop = (at: number) =>
  emit('change', 'show.sentences', (document) => document.show.sentences.splice(at, 1))
</script>

<template>
  <div class="relative font-head text-lg leading-8" aria-label="Show sentence" role="group">
    <p v-for="(sentence, at) in show.sentences" :key="at">
      {{ at ? 'or' : 'Show' }}
      <SentencePiece :words="piece(at, 'where')" wide>
        <WherePanel :sentence="sentence" :draft="draft" @set="set(at, $event)" />
      </SentencePiece>
      to
      <SentencePiece :words="piece(at, 'who')" wide>
        <WhoPanel :sentence="sentence" @set="set(at, $event)" />
      </SentencePiece>
      <span>, </span>
      <SentencePiece :words="piece(at, 'moments')" wide>
        <MomentsPanel :sentence="sentence" @set="set(at, $event)" />
      </SentencePiece>
      <span>, </span>
      <SentencePiece :words="piece(at, 'during')">
        <DuringPanel :sentence="sentence" @set="set(at, $event)" />
      </SentencePiece>
      <span v-if="at < show.sentences.length - 1">, </span>
      <button
        v-if="show.sentences.length > 1"
        type="button"
        class="ml-1 font-body text-sm text-rust underline"
        :aria-label="`Leave out sentence ${at + 1}`"
        @click="drop(at)"
      >
        leave out
      </button>
    </p>
    <p>
      {{ show.sentences.length > 1 ? 'Each' : 'That is' }}
      <SentencePiece :words="words?.often ?? '…'">
        <OftenPanel :show="show" @set="rules" @forget="emit('forget')" />
      </SentencePiece>
      <span>, </span>
      <SentencePiece :words="words?.until ?? '…'">
        <UntilPanel :show="show" @set="rules" />
      </SentencePiece>
      <span v-if="capped">; this site interrupts a visit {{ capped }} at most</span>
      <span>. </span>
      <button
        v-if="show.sentences.length < 20"
        type="button"
        class="btn-link font-body text-base"
        @click="add"
      >
        or also …
      </button>
    </p>
  </div>
</template>
