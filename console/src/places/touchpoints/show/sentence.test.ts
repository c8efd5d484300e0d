import { expect, it } from 'vitest'
import { emptySentence, momentOf, sayDuring, sayMoments, sayOften, sayPages, sayUntil, sayWho, type Sentence, type Show } from './sentence'

const sentence = (more: object = {}): Sentence => ({ ...emptySentence(), ...more })
const page = (kind: string, path: string) => ({ kind, path, query: false })
const who = (...pieces: object[]) => sayWho(sentence({ who: pieces.map((one) => ({ unless: false, ...one })) }))

it.each([
  [{}, 'on every page'],
  [{ pages: [page('below', '/trips')] }, 'on /trips and below'],
  [{ pages: [page('exact', '/a'), page('exact', '/b')] }, 'on /a and /b'],
  [{ not_pages: [page('exact', '/contact')] }, 'on every page but /contact'],
  [{ pages: ['/a', '/b', '/c', '/d'].map((path) => page('exact', path)) }, 'on /a, /b and 2 more'],
  [{ pages: [page('contains', 'tide'), page('group', 'Quiet')] }, 'on pages with “tide” and the pages “Quiet”'],
  [{ kinds: ['article'], not_kinds: ['news'] }, 'on pages of the kind article but the kind news'],
  [{ landing: [page('exact', '/')] }, 'on every page, when they came in on /'],
])('says where: %j', (more, words) => expect(sayPages(sentence(more))).toBe(words))

it.each([
  [[], 'anyone, on any device'],
  [[{ kind: 'been', unless: true }], 'people who are new here'],
  [[{ kind: 'visits', least: 2, most: 5 }], 'people on at least 2 and at most 5 visits'],
  [[{ kind: 'arrival', ways: ['search', 'social'], unless: true }], 'people who did not come from a search site or from a social site'],
  [[{ kind: 'on_list', unless: true }, { kind: 'signed_in' }], 'people not on your list and who are signed in'],
  [[{ kind: 'pages', least: 3, span: 'visit' }], 'people who saw at least 3 pages in this visit'],
  [[{ kind: 'tag', tags: ['boat', 'oar'] }], 'people with the tag “boat” or “oar”'],
  [[{ kind: 'campaign', tag: 'utm_campaign', value: { how: 'exact', text: 'spring' } }], 'people with utm_campaign “spring”'],
])('says to whom: %j', (pieces, words) => expect(who(...pieces)).toBe(words))

it('says when, in which times, how often and until', () => {
  expect(sayWho(sentence({ devices: ['desktop', 'tablet'] }))).toBe('anyone on a desktop or tablet')
  expect(sayMoments(sentence())).toBe('after 12 s or at 40 % down')
  expect(sayMoments(sentence({ moments: [[momentOf('after', 5), momentOf('clicks', 1)]] }))).toBe('after 5 s and after 1 click')
  expect(sayMoments(sentence({ moments: [[momentOf('leave')]] }))).toBe('when they are about to leave')
  expect(sayMoments(sentence({ moments: [] }))).toBe('never by itself')
  expect(sayDuring(sentence())).toBe('at any time')
  const during = { ...emptySentence().during, first: '2026-12-01', days: ['sat', 'sun'], start: '18:00:00', end: '22:00:00', only: 'open' }
  expect(sayDuring(sentence({ during }))).toBe('from 1 Dec 2026, on Sat and Sun, between 18:00 and 22:00, while you are open')
  const show = (more: object = {}) =>
    ({ how_often: { every: 'span', span: { n: 7, unit: 'days' }, most: null, after_closed: null }, until: { answered: true, group: false }, group: '', alone: false, ...more }) as unknown as Show // prettier-ignore
  expect(sayOften(show())).toBe('at most once in 7 days')
  const often = { every: 'visit', span: { n: 1, unit: 'hours' }, most: 3, after_closed: { n: 1, unit: 'hours' } }
  expect(sayOften(show({ how_often: often, alone: true }))).toBe(
    'at most once a visit, at most 3 times ever, not for 1 hour once closed, only if nothing else interrupted',
  )
  expect(sayOften(show({ how_often: { ...often, every: 'moment', most: null, after_closed: null } }))).toBe('each time its moment comes')
  expect(sayUntil(show())).toBe('until they answer')
  expect(sayUntil(show({ until: { answered: true, group: true }, group: 'News' }))).toBe('until they answer this or another of “News”')
})
