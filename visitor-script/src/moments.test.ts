// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { watch } from './moments'

function set(on: object, values: Record<string, number>): void {
  for (const [name, value] of Object.entries(values))
    Object.defineProperty(on, name, { value, configurable: true })
}
const pageOf = (height: number): void =>
  set(document.documentElement, { scrollHeight: height, clientHeight: 800 })
function scrollTo(top: number): void {
  set(document.documentElement, { scrollTop: top })
  document.dispatchEvent(new Event('scroll'))
}

beforeEach(() => {
  vi.useFakeTimers()
  set(window, { innerHeight: 800, innerWidth: 1000 })
  document.body.replaceChildren()
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

it('comes when the page was scrolled so far, and not by opening it', async () => {
  const come = vi.fn()
  watch([[{ read: 40 }]], come)
  scrollTo(1200)
  expect(come).not.toHaveBeenCalled()
  scrollTo(1290)
  expect(come).toHaveBeenCalledOnce()
})

it('counts a page that cannot be scrolled as fully down after 5 s', async () => {
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
  scrollTo(1500)
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

it('goes by the large box that scrolls where the page itself does not, and by no small one', async () => {
  pageOf(800)
  const come = vi.fn()
  const small = document.createElement('div')
  const large = document.createElement('div')
  for (const box of [small, large]) box.style.overflowY = 'auto'
  document.body.append(small, large)
  set(small, { clientHeight: 100, clientWidth: 300, scrollHeight: 900, scrollTop: 800 })
  set(large, { clientHeight: 780, clientWidth: 900, scrollHeight: 2780, scrollTop: 500 })
  watch([[{ read: 40 }]], come)
  await vi.advanceTimersByTimeAsync(6000)
  small.dispatchEvent(new Event('scroll'))
  large.dispatchEvent(new Event('scroll'))
  expect(come).not.toHaveBeenCalled()
  set(large, { scrollTop: 801 })
  large.dispatchEvent(new Event('scroll'))
  expect(come).toHaveBeenCalledOnce()
})
