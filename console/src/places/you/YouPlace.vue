<script setup lang="ts">
import AddressCard from './AddressCard.vue'
import NameCard from './NameCard.vue'
import PasswordCard from './PasswordCard.vue'
import SessionsCard from './SessionsCard.vue'
import ToldCard from './ToldCard.vue'
import StepsCard from './StepsCard.vue'

/**
 * What is one's own, in whichever business: name, what one is told, address, password, a second step, and
 * where one is signed in.
 */
</script>

<template>
  <div class="mx-auto grid max-w-3xl grid-cols-1 gap-4 p-5 max-md:p-3">
    <h1>You</h1>
    <NameCard />
    <ToldCard />
    <AddressCard />
    <PasswordCard />
    <StepsCard />
    <SessionsCard />
  </div>
</template>
