<template>
  <section class="p-10">
    <h1>There is nothing at this address</h1>
    <p class="my-2 text-ink-2">It may have been written differently, or moved.</p>
    <RouterLink to="/follow-up" class="btn">Go to Follow-up</RouterLink>
  </section>
</template>
