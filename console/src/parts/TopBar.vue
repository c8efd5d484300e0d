<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { signOut, startAnew } from '@/api/account'
import { joinBusiness, openBusiness, useMe } from '@/api/me'
import { useArrivals } from './arrivals'
import { openBox } from './find'
import BrandMark from './BrandMark.vue'
import CounterMenu from './CounterMenu.vue'
import MenuRow from './MenuRow.vue'

const { data: me } = useMe()
const all = computed(() => me.value?.member?.sees_everybody ?? true)
useArrivals()
const here = useRoute()
/** With somebody open, or a touchpoint, one is in the place still. */
const stands = (path: string) => here.path === path || here.path.startsWith(`${path}/`)
const PLACES = [
  ['/follow-up', 'Follow-up', ''],
  ['/people', 'People', ''],
  ['/touchpoints', 'Touchpoints', ''],
  ['/hours', 'Hours', '& channels'],
  ['/business', 'Business', ''],
] as const

/** Everything on the screen is another business's then. */
async function other(id: number) {
  await openBusiness(id)
  startAnew('/follow-up')
}
async function leave() {
  await signOut()
  startAnew('/sign-in')
}
</script>

<template>
  <header
    class="flex min-h-12 flex-wrap items-center gap-x-6 border-b border-line bg-sheet px-5 max-md:px-3 max-md:pt-2"
  >
    <BrandMark />
    <nav
      class="flex gap-6 self-stretch max-md:order-last max-md:w-full max-md:flex-wrap max-md:justify-between max-md:gap-x-2"
      aria-label="Places"
    >
      <RouterLink
        v-for="[path, name, rest] in PLACES.filter(([path]) => path !== '/people' || all)"
        :key="path"
        :to="path"
        class="flex items-center whitespace-nowrap border-b-3 max-md:text-sm border-transparent py-2.5 text-ink-2 hover:text-ink"
        :class="{ '!border-petrol font-semibold !text-ink': stands(path) }"
        :aria-current="stands(path) ? 'page' : undefined"
      >
        {{ name }}<span v-if="rest" class="max-md:hidden">&nbsp;{{ rest }}</span>
      </RouterLink>
    </nav>
    <div class="ml-auto flex items-center gap-3">
      <button class="btn font-normal text-ink-2 max-lg:hidden" type="button" @click="openBox">
        Find or do… <kbd class="rounded border border-line px-1 text-xs font-semibold">Ctrl K</kbd>
      </button>
      <select
        v-if="(me?.businesses.length ?? 0) > 1"
        class="input w-auto! max-w-48"
        aria-label="Which business"
        :value="me?.business?.id"
        @change="other(Number(($event.target as HTMLSelectElement).value))"
      >
        <option v-for="one in me?.businesses" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <span v-else class="max-xl:hidden text-ink-2">{{ me?.business?.name }}</span>
      <CounterMenu />
      <Menu as="div" class="relative">
        <MenuButton
          class="flex size-8 items-center justify-center rounded-full bg-petrol text-xs font-bold text-sheet"
          :aria-label="`${me?.initials}: account of ${me?.name || me?.email}`"
        >
          {{ me?.initials }}
        </MenuButton>
        <MenuItems class="pop absolute right-0 mt-1 w-56">
          <p class="mb-2 truncate text-sm text-ink-2">{{ me?.email }}</p>
          <MenuRow
            v-for="one in me?.invitations"
            :key="one.id"
            @click="joinBusiness(one.id).then(() => startAnew('/follow-up'))"
          >
            Join {{ one.business }}, which invites you</MenuRow
          >
          <MenuRow to="/you">You: name, address, password</MenuRow>
          <MenuRow to="/business#people">People of the business</MenuRow>
          <MenuRow @click="leave">Sign out</MenuRow>
        </MenuItems>
      </Menu>
    </div>
  </header>
</template>
