import { expect, it } from 'vitest'
import { momentsOf, sayDevices, sayMoments, sayPages } from './sentence'

const after = (seconds: number) => ({ after: seconds, read: null, leave: null })
const read = (share: number) => ({ after: null, read: share, leave: null })
const sentence = (more: object) =>
  ({ pages: [], not_pages: [], devices: ['desktop', 'tablet', 'phone'], moments: [[after(12)], [read(40)]], ...more }) as Parameters<
    typeof sayPages
  >[0]

it.each([
  [{}, 'on every page'],
  [{ pages: [{ kind: 'below', path: '/trips' }] }, 'on /trips and below'],
  [
    {
      pages: [
        { kind: 'exact', path: '/a' },
        { kind: 'exact', path: '/b' },
      ],
    },
    'on /a and /b',
  ],
  [{ not_pages: [{ kind: 'exact', path: '/contact' }] }, 'on every page but /contact'],
])('says where: %j', (more, words) => expect(sayPages(sentence(more))).toBe(words))

it('says to whom and when', () => {
  expect(sayDevices(sentence({}))).toBe('anyone, on any device')
  expect(sayDevices(sentence({ devices: ['desktop', 'tablet'] }))).toBe('anyone on a desktop or tablet')
  expect(sayMoments(sentence({}))).toBe('after 12 s or at 40 % down')
  expect(sayMoments(sentence({ moments: [[after(5), read(50)]] }))).toBe('after 5 s and at 50 % down')
  expect(sayMoments(sentence({ moments: [[{ after: null, read: null, leave: true }]] }))).toBe('when they are about to leave')
  expect(sayMoments(sentence({ moments: [] }))).toBe('never by itself')
})

it('gives the small form its two numbers', () => {
  expect(momentsOf(sentence({}))).toEqual({ after: 12, read: 40, leave: false })
  expect(momentsOf(sentence({ moments: [[after(0)]] }))).toEqual({ after: 0, read: null, leave: false })
})
