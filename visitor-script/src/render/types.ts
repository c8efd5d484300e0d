import type { FullLook, FullValues, TouchpointDocument } from '../generated/document'
import type EVERY from '../generated/words.json'

export type { FullLook, FullValues, TouchpointDocument }

/** Words of ours by their names; those that a touchpoint needs are there. */
export type Spoken = Record<keyof typeof EVERY, string>

/** A document as visitors get it: without rules and what comes after, its look resolved. */
export type SeenDocument = Omit<TouchpointDocument, 'show' | 'after' | 'look' | 'guard' | 'language'> & {
  look: FullLook
  /** Its language, and the words of ours that it needs, by their names. */
  speech: { lang: string; locale: string; dir: string; words: Spoken }
  then: { page: string; trap: boolean; work: boolean }
}
export type Step = SeenDocument['steps'][number]
export type Part = Step['parts'][number]
export type PartOf<K extends Part['kind']> = Extract<Part, { kind: K }>
export type Does = PartOf<'button'>['does']

export interface Values {
  answers: Record<string, string>
  consents: Record<string, boolean>
}

export interface Says {
  title: string
  text: string
}

/** What came of sending: gone through, to be mended, or kept to be sent later. */
export type Sent =
  | {
      kind: 'taken'
      next: string | null
      says: Says | null
      suggest: { email: string } | null
      code: string | null
      tags?: string[]
      file: { url: string; label: string } | null
    }
  | { kind: 'mend'; errors: Wrong[] }
  | { kind: 'kept' }

/** What some parts need besides the document. */
export interface Extras {
  slots?: Record<string, { value: string; day: string; time: string }[]>
  hours?: { open: boolean; says: string; days: { day: string; spans: string[]; label: string }[] } | null
  questions?: { id: number; group: string; question: string; answer: string }[]
  code?: string | null
  channels?: Ways
}

/** A way to reach the business, as it is met now. */
export interface Way {
  situation: string
  hidden: boolean
  says: Says | null
  people: { name: string; words: string; picture: string | null; reachable: boolean; href: string; by?: Record<string, string> }[]
  kind: string
  label: string
  button: string
  icon: string
  colour: string | null
  pick: 'visitor' | 'first-reachable'
  opens: 'new' | 'same' | 'ask-first'
  goal: boolean
  href: string
  /** Where its words name the touchpoint: the link of each. */
  by?: Record<string, string>
  /** Where the visitor's words are asked for first: what stands there, and the link with a place for them. */
  text?: string
  asks?: string
}
export type Ways = Record<string, Way>

/** What a drawing asks of the world around it. */
export interface Actions {
  send(step: string, values: Values, trap: string): Promise<Sent>
  /** Another address that they may have meant. */
  offer(email: string): void
  close(): void
  started(): void
  /** A click, on a channel where it went to one. */
  clicked(channel?: string): void
  goal(): void
  /** Fetches the rest of the code, whether or not it comes. */
  more(): Promise<unknown>
  /** It could not move the page aside, and lies over it. */
  over?(): void
  open(slug: string): void
  /** Says something to the server, at an address of the site's. */
  post(path: string, body: object): Promise<Response>
  extras(code: boolean): Promise<Extras>
}

export interface Typed extends Values {
  step: string
}

/** Where a drawing stands: what it may know and keep. */
export interface Around {
  /** Where pictures and fonts come from. */
  base: string
  firstName: string
  /** The time now by the server's clock, in milliseconds. */
  now(): number
  typed: Typed | null
  keep(typed: Typed | null): void
  /** A word kept for this visitor, such as when a countdown began. */
  memo(key: string, value?: string): string | null
  /** The ways to reach the business, by their ids. */
  ways(): Ways | undefined
  /** Which touchpoint it is, in which revision. */
  entry: { id: string; revision: number }
}

/** What holds an answer: read and written as text, a tick as a boolean. */
export interface Control {
  name: string
  consent: boolean
  focus: HTMLElement
  read(): string | boolean
  write(value: string | boolean): void
}

export interface Made {
  element: HTMLElement
  control?: Control
  error?: HTMLElement
}

/** What is wrong with a field that was sent. */
export interface Wrong {
  field: string
  message: string
}
