import type { Says, SeenDocument, Ways } from './render'
import { PHONE } from './render/look'

export interface Moment {
  after?: number
  read?: number
  up?: number
  view?: string
  clicks?: number
  idle?: number
  leave?: boolean
  click?: string
  /** What must come once more, from now on: such a one is watched by the rest of the code. */
  anew?: Moment
}

export interface Entry {
  id: string
  slug: string
  revision: number
  variant: string | null
  generation: number
  order: number
  /** Whether it has something that the loader does not carry. */
  needs_more: boolean
  /** Whether it may come again on the same page, once closed. */
  again: boolean
  stance: string
  queue: 'interrupting' | 'bar' | 'none'
  valid_until: string
  moments: Moment[][]
  document: SeenDocument
}

export interface Wants {
  kinds: boolean
  signed_in: string
}

export interface Plan {
  now: string
  visit_minutes: number
  /** Elements of the site's own that go first. */
  give_way_to: string[]
  /** What the rules want to know of the page, if anything. */
  wants?: Wants
  hours: { situation: string; until: string | null; says: Says | null }
  touchpoints: Entry[]
  channels?: Ways
}

export type Device = 'desktop' | 'tablet' | 'phone'

/** Asked of the media, not of the window's width, for which the page would have to be laid out at once. */
export function device(): Device {
  if (matchMedia(PHONE).matches) return 'phone'
  return matchMedia('(pointer:coarse) and (max-width:1366px)').matches ? 'tablet' : 'desktop'
}
