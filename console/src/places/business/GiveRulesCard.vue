<script setup lang="ts">
import { useTags, useWaysIn } from '@/api/follow-ups'
import { useGiveRules, type GiveRule } from '@/api/give-rules'
import { useMay, useMembers } from '@/api/me'
import { useTouchpoints } from '@/api/touchpoints'
import { moved } from '@/lib/sort'
import { ONE_OF_A_KIND } from '@/lib/names'
import { vTyped } from '@/lib/typed'
import { useForm } from '@/parts/form'
import ClashBox from '@/parts/ClashBox.vue'

/** Whose new work is: rules in order, of which the first that fits decides. */
const { rules, set } = useGiveRules()
const { data: members } = useMembers()
const { data: touchpoints } = useTouchpoints()
const { data: ways } = useWaysIn()
const { data: tags } = useTags()
const may = useMay()
const form = useForm()
/** What is not kept yet, since somebody else has changed the rules meanwhile. */
let mine: GiveRule[] = []
/** One after the other: each is made from what the one before has kept. */
let line: Promise<unknown> = Promise.resolve()
const put = (next: (rules: GiveRule[]) => GiveRule[], all_the_same = false) =>
  (line = line.then(() =>
    form.run(async () => {
      const based_on = (rules.value ?? []).map((one) => one.rule)
      mine = next(based_on)
      await set({ rules: mine, based_on, all_the_same })
    }),
  ))
const change = (at: number, patch: Partial<GiveRule>) =>
  put((rules) => rules.map((one, index) => (index === at ? { ...one, ...patch } : one)))
const drop = (at: number) => put((rules) => rules.filter((_, index) => index !== at))
const text = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value.trim() || null
const number = (event: Event) => (text(event) === null ? null : Number(text(event)))
</script>

<template>
  <article id="give" class="sheet p-5" aria-labelledby="give-title">
    <h2 id="give-title" class="mb-1">Whose new work is</h2>
    <p class="mb-2 text-sm text-ink-2">
      The first rule that fits decides; what none fits is everybody’s. What is on the list already stays whose
      it is.
    </p>
    <ol class="grid">
      <li
        v-for="(one, at) in rules"
        :key="at"
        class="flex flex-wrap items-center gap-1.5 border-t border-line-2 py-2"
      >
        <span class="text-ink-2">{{ at + 1 }}.</span>
        <fieldset class="contents" :disabled="!may('business')" :aria-label="one.words">
          <select
            class="piece"
            :aria-label="`What, rule ${at + 1}`"
            :value="one.rule.kind ?? ''"
            @change="change(at, { kind: text($event) as GiveRule['kind'] })"
          >
            <option value="">everything</option>
            <option v-for="(words, key) in ONE_OF_A_KIND" :key="key" :value="key">{{ words }}</option>
          </select>
          from
          <select
            class="piece"
            :aria-label="`From which touchpoint, rule ${at + 1}`"
            :value="one.rule.touchpoint ?? ''"
            @change="change(at, { touchpoint: number($event) })"
          >
            <option value="">any touchpoint</option>
            <option v-for="each in touchpoints" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select>
          <select
            class="piece"
            :aria-label="`How it came, rule ${at + 1}`"
            :value="one.rule.via ?? ''"
            @change="change(at, { via: text($event) })"
          >
            <option value="">by any way</option>
            <option v-for="each in ways" :key="each.key" :value="each.key">{{ each.words }}</option>
          </select>
          on
          <input
            v-typed="one.rule.page ?? ''"
            class="piece w-28!"
            :aria-label="`On which page, rule ${at + 1}`"
            placeholder="any page"
            maxlength="500"
            @change="change(at, { page: text($event) })"
          />
          tagged
          <select
            class="piece"
            :aria-label="`Tagged, rule ${at + 1}`"
            :value="one.rule.tag ?? ''"
            @change="change(at, { tag: text($event) })"
          >
            <option value="">anything</option>
            <option v-for="each in tags" :key="each" :value="each">{{ each }}</option>
          </select>
          goes to
          <select
            class="piece"
            :aria-label="`To whom, rule ${at + 1}`"
            :value="one.rule.member ?? ''"
            @change="change(at, { member: number($event) })"
          >
            <option value="">whoever at the counter has the least open</option>
            <option v-for="each in members" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select>
          <span v-if="may('business')" class="ml-auto flex items-center gap-1">
            <button
              type="button"
              class="btn px-2!"
              :disabled="at === 0"
              :aria-label="`Rule ${at + 1} up`"
              @click="put((rules) => moved(rules, at, at - 1))"
            >
              ↑
            </button>
            <button type="button" class="btn" :aria-label="`Remove rule ${at + 1}`" @click="drop(at)">
              Remove
            </button>
          </span>
        </fieldset>
      </li>
    </ol>
    <ClashBox :error="form.error.value" @mine="put(() => mine, true)" @theirs="form.clear()">
      <p v-if="form.error.value" class="mt-1 font-semibold text-rust" role="alert">
        {{ Object.values(form.fields.value)[0] ?? form.error.value.message }}
      </p>
    </ClashBox>
    <button v-if="may('business')" type="button" class="btn mt-2" @click="put((rules) => [...rules, {}])">
      + Rule
    </button>
  </article>
</template>
