import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { watch } from './moments'

function pageOf(height: number): void {
  Object.defineProperty(document.documentElement, 'scrollHeight', { value: height, configurable: true })
}
function scrollTo(top: number): void {
  Object.defineProperty(window, 'scrollY', { value: top, configurable: true })
  window.dispatchEvent(new Event('scroll'))
}

beforeEach(() => {
  vi.useFakeTimers()
  Object.defineProperty(window, 'innerHeight', { value: 800, configurable: true })
  scrollTo(0)
  pageOf(4000)
})
afterEach(() => void vi.useRealTimers())

it('comes after its seconds, once', async () => {
  const come = vi.fn()
  watch([[{ after: 12 }]], come)
  await vi.advanceTimersByTimeAsync(11_900)
  expect(come).not.toHaveBeenCalled()
  await vi.advanceTimersByTimeAsync(60_000)
  expect(come).toHaveBeenCalledOnce()
})

it('comes when the page is read so far, and not by opening it', async () => {
  const come = vi.fn()
  watch([[{ read: 40 }]], come)
  scrollTo(700)
  expect(come).not.toHaveBeenCalled()
  scrollTo(800)
  expect(come).toHaveBeenCalledOnce()
})

it('counts a page that is no longer than the screen as read after 5 s', async () => {
  pageOf(700)
  const come = vi.fn()
  watch([[{ read: 90 }]], come)
  await vi.advanceTimersByTimeAsync(4_900)
  expect(come).not.toHaveBeenCalled()
  await vi.advanceTimersByTimeAsync(200)
  expect(come).toHaveBeenCalledOnce()
})

it('takes any of the alternatives, and all parts of one', async () => {
  const any = vi.fn()
  const all = vi.fn()
  watch([[{ after: 30 }], [{ read: 40 }]], any)
  watch([[{ after: 30 }, { read: 40 }]], all)
  scrollTo(900)
  expect(any).toHaveBeenCalledOnce()
  expect(all).not.toHaveBeenCalled()
  await vi.advanceTimersByTimeAsync(30_000)
  expect(all).toHaveBeenCalledOnce()
})

it('can be stopped when the page is left', async () => {
  const come = vi.fn()
  watch([[{ after: 1 }], [{ read: 10 }]], come)()
  scrollTo(3000)
  await vi.advanceTimersByTimeAsync(10_000)
  expect(come).not.toHaveBeenCalled()
})
