import type { TouchpointDocument } from '../types'
import { clockOf, yearDay } from '@/lib/time'

export type Show = TouchpointDocument['show']
export type Sentence = Show['sentences'][number]
export type Pattern = Sentence['pages'][number]
export type Who = Sentence['who'][number]
export type Moment = Sentence['moments'][number][number]
export type Span = Show['how_often']['span']

export function list(words: string[], last: string): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${last} ${words[words.length - 1]}`
}

export function sayPattern(one: Pattern): string {
  if (one.kind === 'below') return one.path === '/' ? '/' : `${one.path} and below`
  if (one.kind === 'contains') return `pages with “${one.path}”`
  return one.kind === 'group' ? `the pages “${one.path}”` : one.path
}
const some = (patterns: Pattern[]): string =>
  patterns.length > 3
    ? `${patterns.slice(0, 2).map(sayPattern).join(', ')} and ${patterns.length - 2} more`
    : list(patterns.map(sayPattern), 'and')

/** "on every page", "on /trips and below and /lessons", "on every page but /contact" */
export function sayPages(sentence: Sentence): string {
  const { pages, not_pages, kinds, not_kinds, landing, not_landing } = sentence
  const kind = kinds.length ? `pages of the kind ${list(kinds, 'or')}` : ''
  const where = pages.length ? `on ${some(pages)}${kind && `, if they are ${kind}`}` : kind ? `on ${kind}` : 'on every page'
  const less = [...(not_pages.length ? [some(not_pages)] : []), ...(not_kinds.length ? [`the kind ${list(not_kinds, 'or')}`] : [])]
  const came = landing.length ? `, when they came in on ${some(landing)}` : ''
  const notCame = not_landing.length ? `, unless they came in on ${some(not_landing)}` : ''
  return `${where}${less.length ? ` but ${list(less, 'and')}` : ''}${came}${notCame}`
}

export const WAYS = {
  typed: 'by typing your address',
  search: 'from a search site',
  social: 'from a social site',
  elsewhere: 'from another site',
  here: 'from your own site',
} as const
const quoted = (words: string[]) =>
  list(
    words.map((one) => `“${one}”`),
    'or',
  )

function sayPiece(one: Who): [yes: string, no: string] {
  switch (one.kind) {
    case 'been':
      return ['who have been here before', 'who are new here']
    case 'visits': {
      const bounds = [one.least && `at least ${one.least}`, one.most && `at most ${one.most}`].filter(Boolean).join(' and ')
      return [`on ${bounds} visits`, `not on ${bounds} visits`]
    }
    case 'pages': {
      const span = one.span === 'visit' ? 'in this visit' : 'ever'
      return [`who saw at least ${one.least} pages ${span}`, `who saw fewer than ${one.least} pages ${span}`]
    }
    case 'arrival': {
      const ways = list(
        one.ways.map((way) => WAYS[way]),
        'or',
      )
      return [`who came ${ways}`, `who did not come ${ways}`]
    }
    case 'referrer':
      return [`who came from “${one.address.text}”`, `who did not come from “${one.address.text}”`]
    case 'campaign':
      return [`with ${one.tag} “${one.value.text}”`, `without ${one.tag} “${one.value.text}”`]
    case 'signed_in':
      return ['who are signed in', 'who are not signed in']
    case 'language':
      return [`who read ${list(one.languages, 'or')}`, `who do not read ${list(one.languages, 'or')}`]
    case 'on_list':
      return ['on your list', 'not on your list']
    case 'tag':
      return [`with the tag ${quoted(one.tags)}`, `without the tag ${quoted(one.tags)}`]
  }
}

/** "anyone, on any device", "anyone on a desktop or tablet who is new here" */
export function sayWho(sentence: Sentence): string {
  const pieces = sentence.who.map((one) => sayPiece(one)[one.unless ? 1 : 0])
  const device = sentence.devices.length === 3 ? '' : ` on a ${list(sentence.devices, 'or')}`
  if (!pieces.length) return device ? `anyone${device}` : 'anyone, on any device'
  return `people${device} ${list(pieces, 'and')}`
}

export type MomentKind = 'after' | 'read' | 'up' | 'view' | 'clicks' | 'idle' | 'leave' | 'click'
export const MOMENTS: Record<MomentKind, { name: string; start: number | string | true; unit: string; say: (value: unknown) => string }> = {
  after: { name: 'seconds on the page', start: 12, unit: 's on the page', say: (value) => `after ${value} s` },
  read: { name: 'so much of it read', start: 40, unit: '% of the page, going down', say: (value) => `at ${value} % down` },
  up: { name: 'back up again', start: 20, unit: '% of the page, coming back up', say: (value) => `back up at ${value} %` },
  idle: { name: 'doing nothing', start: 30, unit: 's without doing anything', say: (value) => `after ${value} s of doing nothing` },
  clicks: {
    name: 'clicks anywhere',
    start: 3,
    unit: 'clicks anywhere',
    say: (value) => `after ${value} ${value === 1 ? 'click' : 'clicks'}`,
  },
  leave: { name: 'about to leave', start: true, unit: 'when they are about to leave', say: () => 'when they are about to leave' },
  view: { name: 'an element in view', start: 'footer', unit: 'comes into view', say: (value) => `when “${value}” is in view` },
  click: { name: 'a click on an element', start: 'main a', unit: 'is clicked', say: (value) => `at a click on “${value}”` },
}
export const EMPTY_MOMENT: Moment = { after: null, read: null, up: null, view: null, clicks: null, idle: null, leave: null, click: null }
export const momentOf = (kind: MomentKind, value: unknown = MOMENTS[kind].start): Moment => ({ ...EMPTY_MOMENT, [kind]: value }) as Moment
export const kindOf = (one: Moment): MomentKind => (Object.keys(MOMENTS) as MomentKind[]).find((kind) => one[kind] != null) ?? 'after'

/** "after 12 s or at 40 % down", "never by itself" */
export function sayMoments(sentence: Sentence): string {
  const say = (one: Moment) => MOMENTS[kindOf(one)].say(one[kindOf(one)])
  const all = sentence.moments.map((moment) => moment.map(say).join(' and '))
  return all.length ? list(all, 'or') : 'never by itself'
}

export const DAYS = { mon: 'Mon', tue: 'Tue', wed: 'Wed', thu: 'Thu', fri: 'Fri', sat: 'Sat', sun: 'Sun' } as const

/** "at any time", "from 1 Dec 2026 to 24 Dec 2026, on Sat and Sun, while you are open" */
export function sayDuring({ during }: Sentence, names: Record<number, string> = {}): string {
  const clock = (text: string | null) => (text ? `, ${clockOf(text)}` : '')
  const dates = [
    during.first && `from ${yearDay(during.first)}${clock(during.first_time)}`,
    during.last && `to ${yearDay(during.last)}${clock(during.last_time)}`,
  ]
    .filter(Boolean)
    .join(' ')
  const days = during.days.length
    ? `on ${list(
        during.days.map((day) => DAYS[day]),
        'and',
      )}`
    : ''
  const times = during.start && during.end ? `between ${clockOf(during.start)} and ${clockOf(during.end)}` : ''
  const named = during.hours ? names[during.hours] : undefined
  const only = during.only ? (named ? `while ${named} is ${during.only}` : `while you are ${during.only}`) : ''
  const found = [dates, days, times, only].filter(Boolean)
  if (found.length && during.clock === 'visitor' && (dates || days || times)) found.push('by their own clock')
  return found.join(', ') || 'at any time'
}

export const saySpan = (span: Span): string => (span.n === 1 ? `1 ${span.unit.slice(0, -1)}` : `${span.n} ${span.unit}`)

/** "each time its moment comes", "on every page view", "at most once in 7 days, 3 times ever" */
export function sayOften({ how_often, alone }: Show): string {
  const base = {
    moment: 'each time its moment comes',
    page: 'on every page view',
    visit: 'at most once a visit',
    span: `at most once in ${saySpan(how_often.span)}`,
  }[how_often.every]
  const more = [
    how_often.most ? `at most ${how_often.most} ${how_often.most === 1 ? 'time' : 'times'} ever` : '',
    how_often.after_closed ? `not for ${saySpan(how_often.after_closed)} once closed` : '',
    alone ? 'only if nothing else interrupted' : '',
  ].filter(Boolean)
  return [base, ...more].join(', ')
}

export function sayUntil({ until, group }: Show): string {
  if (until.group && group) return `until they answer this or another of “${group}”`
  return until.answered ? 'until they answer' : 'also after they answer'
}

export const emptySentence = (): Sentence => ({
  sites: [],
  pages: [],
  not_pages: [],
  landing: [],
  not_landing: [],
  kinds: [],
  not_kinds: [],
  devices: ['desktop', 'tablet', 'phone'],
  who: [],
  moments: [[momentOf('after')], [momentOf('read')]],
  during: {
    first: null,
    first_time: null,
    last: null,
    last_time: null,
    days: [],
    start: null,
    end: null,
    clock: 'business',
    only: null,
    hours: null,
  },
})
