import { expect, it } from 'vitest'
import { runsOf, runsToHtml } from './runs'

it('shows slots as marks and keeps what looks like markup as text', () => {
  expect(runsToHtml(['Hello ', { slot: 'first_name' }, ', a < b'])).toBe(
    '<p>Hello <span data-slot="first_name"></span>, a &lt; b</p>',
  )
})

it('keeps paragraphs apart and slots as data', () => {
  const content = {
    type: 'doc',
    content: [
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'Hello ' },
          { type: 'slot', attrs: { slot: 'first_name' } },
        ],
      },
      { type: 'paragraph', content: [{ type: 'text', text: 'Bye' }] },
    ],
  }
  expect(runsOf(content)).toEqual(['Hello ', { slot: 'first_name' }, '\n\nBye'])
})

it('has no words for nothing', () =>
  expect(runsOf({ type: 'doc', content: [{ type: 'paragraph' }] })).toEqual([]))
