/// <reference lib="webworker" />
import {
  cleanupOutdatedCaches,
  matchPrecache,
  precacheAndRoute,
  type PrecacheEntry,
} from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

/**
 * The application itself is kept on the device; what it shows is kept by the application. Pages are asked for
 * from the server, and where that does not answer in time the one that is kept opens.
 */
declare const self: ServiceWorkerGlobalScope & { __KEPT: PrecacheEntry[] }
const SHELL = '/static/console/index.html'
const WAITS = 4_000

precacheAndRoute(self.__KEPT)
cleanupOutdatedCaches()
registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      const soon = new AbortController()
      const timer = setTimeout(() => soon.abort(), WAITS)
      try {
        return await fetch(request, { signal: soon.signal })
      } catch {
        return (await matchPrecache(SHELL)) ?? Response.error()
      } finally {
        clearTimeout(timer)
      }
    },
    { denylist: [/^\/(api|_allauth|b|e|g|h|in|l|t|m|f|c|csv|static)\//, /^\/healthz/] },
  ),
)
self.addEventListener('install', () => void self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
