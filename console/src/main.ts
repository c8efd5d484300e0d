import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { nobodyIsIn, onSignedOut } from './api/client'
import { sendWaiting } from './api/follow-ups'
import { forgetRead, keepQueries } from './lib/kept'
import { startOutbox } from './lib/outbox'
import { Queries } from './lib/queries'
import { guardWith, router } from './router'
import './style.css'

const queryClient = new Queries()
guardWith(queryClient)
const openToAll = () => router.currentRoute.value.meta.open || !router.currentRoute.value.matched.length
onSignedOut(async () => {
  if (openToAll()) return
  if (!(await nobodyIsIn())) return void queryClient.invalidateQueries()
  if (openToAll()) return
  const here = router.currentRoute.value
  // What was done without a network stays for whoever signs in again; what was read does not.
  void forgetRead().then(() => {
    queryClient.clear()
    // Asked anew who it is: somebody who belongs to no business any more is signed in still.
    return router.replace({ path: here.path, query: here.query, hash: here.hash, force: true })
  })
})
// What was kept on this device stands there before anything is asked for.
await keepQueries(queryClient)
await startOutbox(sendWaiting(queryClient))
createApp(App).use(createPinia()).use(VueQueryPlugin, { queryClient }).use(router).mount('#app')
// Sixty files are kept for when there is no network: not while what was asked for is still on its way.
if ('serviceWorker' in navigator && import.meta.env.PROD)
  setTimeout(() => void navigator.serviceWorker.register('/sw.js').catch(() => undefined), 3_000)
