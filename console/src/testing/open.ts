import { VueQueryPlugin } from '@tanstack/vue-query'
import { configure, screen, waitFor, within } from '@testing-library/dom'
import userEvent from '@testing-library/user-event'
import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { expect, vi } from 'vitest'
import App from '@/App.vue'
import { Queries } from '@/lib/queries'
import { guardWith, router } from '@/router'
import { sent } from './server'

export { screen, waitFor, within }
export const user = userEvent.setup({ delay: null })

// What is to come about is waited for on a busy machine, too.
configure({ asyncUtilTimeout: 20_000 })
const AT = new Date('2026-11-24T14:05:00Z')
let mounted: VueWrapper | null = null

/** The application at an address, with the clock at 14:05 on the demo's Tuesday. */
export async function open(path: string): Promise<void> {
  vi.useFakeTimers({ now: AT, toFake: ['Date'] })
  const queries = new Queries()
  guardWith(queries)
  await router.push(path)
  mounted = mount(App, {
    attachTo: document.body,
    global: { plugins: [createPinia(), [VueQueryPlugin, { queryClient: queries }], router] },
  })
  await router.isReady()
}

/** Nothing of a test is there for the next one. */
export function close(): void {
  mounted?.unmount()
  mounted = null
  document.body.innerHTML = ''
  localStorage.clear()
  sessionStorage.clear()
  vi.useRealTimers()
}

/** What was sent there, once it was. */
export async function sentTo(method: string, path: string): Promise<unknown> {
  return waitFor(() => {
    const one = sent.findLast((each) => each.method === method && each.path === path)
    if (!one) throw new Error(`nothing was sent: ${method} ${path}, but ${JSON.stringify(sent)}`)
    return one.body
  })
}

/** A text that is there, now or in a moment. */
export async function shows(words: string | RegExp): Promise<HTMLElement> {
  return (await screen.findAllByText(words))[0]!
}

export async function gone(look: () => HTMLElement | null): Promise<void> {
  await waitFor(() => {
    expect(look()).toBeNull()
  })
}
