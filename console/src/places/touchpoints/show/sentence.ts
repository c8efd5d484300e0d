import type { TouchpointDocument } from '@/api/document'

export type Show = TouchpointDocument['show']
export type Sentence = Show['sentences'][number]
export type Pattern = Sentence['pages'][number]
export type Who = Sentence['who'][number]
export type Moment = Sentence['moments'][number][number]
export type Span = Show['how_often']['span']

export type MomentKind = 'after' | 'read' | 'up' | 'view' | 'clicks' | 'idle' | 'leave' | 'click'
export const MOMENTS: Record<MomentKind, { name: string; start: number | string | true; unit: string }> = {
  after: { name: 'seconds on the page', start: 12, unit: 's on the page' },
  read: { name: 'so much of it read', start: 40, unit: '% of the page, going down' },
  up: { name: 'back up again', start: 20, unit: '% of the page, coming back up' },
  idle: { name: 'doing nothing', start: 30, unit: 's without doing anything' },
  clicks: { name: 'clicks anywhere', start: 3, unit: 'clicks anywhere' },
  leave: { name: 'about to leave', start: true, unit: 'when they are about to leave' },
  view: { name: 'an element in view', start: 'footer', unit: 'comes into view' },
  click: { name: 'a click on an element', start: 'main a', unit: 'is clicked' },
}
export const EMPTY_MOMENT: Moment = {
  after: null,
  read: null,
  up: null,
  view: null,
  clicks: null,
  idle: null,
  leave: null,
  click: null,
}
export const momentOf = (kind: MomentKind, value: unknown = MOMENTS[kind].start): Moment =>
  ({ ...EMPTY_MOMENT, [kind]: value }) as Moment
export const kindOf = (one: Moment): MomentKind =>
  (Object.keys(MOMENTS) as MomentKind[]).find((kind) => one[kind] != null) ?? 'after'

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
