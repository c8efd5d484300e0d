import { afterAll, afterEach, beforeAll } from 'vitest'
import { network } from './browser'
import { close } from './open'
import { sent, server } from './server'

const { fetch } = globalThis
beforeAll(() => {
  server.listen({ onUnhandledRequest: 'error' })
  network.fetch = globalThis.fetch
})
afterEach(() => {
  close()
  server.resetHandlers()
  sent.length = 0
})
afterAll(() => {
  server.close()
  network.fetch = fetch
})
