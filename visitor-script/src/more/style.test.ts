// @vitest-environment jsdom
import { afterEach, expect, it, vi } from 'vitest'
import { readStyle, tellStyle } from './style'

const PAGE = `<style>
body{font-family:"Otter Serif", Georgia, serif;color:rgb(59, 42, 26);background-color:rgb(251, 241, 222)}
h1{font-family:system-ui;color:rgb(10, 20, 30)}
.btn{background-color:rgb(168, 58, 31);color:rgb(255, 255, 255);border-top-left-radius:6px}
</style><main><h1>Boats</h1><a class="btn" href="/">Go</a></main>`

afterEach(() => {
  document.head.replaceChildren()
  document.body.replaceChildren()
  location.hash = ''
  vi.unstubAllGlobals()
})

function page(): void {
  document.body.innerHTML = PAGE
  for (const one of document.querySelectorAll<HTMLElement>('.btn'))
    Object.defineProperty(one, 'offsetParent', { value: document.body })
}

it('reads fonts, colours and corners from what the page is painted with', async () => {
  page()
  const style = await readStyle()
  expect(style.font).toEqual({ source: 'site', name: "'Otter Serif', Georgia, serif" })
  expect(style.head_font).toEqual({ source: 'system', name: 'sans' })
  expect(style.corners).toBe(6)
  expect(style.colours).toEqual({
    card: '#fbf1de', text: '#3b2a1a', headline: '#0a141e', button: '#a83a1f', button_text: '#ffffff',
  }) // prettier-ignore
  expect(style.logo).toBeNull()
})

it('says nothing of what a bare page does not have', async () => {
  document.body.innerHTML = '<main>Plain</main>'
  const style = await readStyle()
  expect([style.head_font, style.corners]).toEqual([null, null])
  expect(Object.keys(style.colours)).not.toContain('button')
})

it('tells only the window that opened the page, and only when it was asked to', async () => {
  page()
  const told: [unknown, string][] = []
  vi.stubGlobal('opener', { postMessage: (what: unknown, to: string) => told.push([what, to]) })
  tellStyle()
  location.hash = `#intavo_style_${btoa('http://127.0.0.1:8400').replace(/=+$/, '')}`
  tellStyle()
  await vi.waitFor(() => expect(told).toHaveLength(1))
  location.hash = `#intavo-style=${encodeURIComponent('http://127.0.0.1:8401')}`
  tellStyle()
  await vi.waitFor(() => expect(told[1]?.[1]).toBe('http://127.0.0.1:8401'))
  expect(told[0]?.[1]).toBe('http://127.0.0.1:8400')
  expect(told[0]?.[0]).toMatchObject({ intavo: 'style', style: { corners: 6 } })
})
