import type {
  Extras as Given,
  FieldWrong,
  FullLook,
  FullValues,
  SeenDocument,
  Taken,
  Told,
  Way,
} from '../generated/wire'

export type { FullLook, FullValues, SeenDocument, Way }

/** `live`: as it stands; `inline`: in the page, whatever its stance; `stage`: as the editor shows it. */
export type Mode = 'live' | 'inline' | 'stage'
/** Words of ours by their names; those that a touchpoint needs are there. */
export type Spoken = SeenDocument['speech']['words']
export type Step = SeenDocument['steps'][number]
export type Part = Step['parts'][number]
export type PartOf<K extends Part['kind']> = Extract<Part, { kind: K }>
export type Does = PartOf<'button'>['does']

export interface Values {
  answers: Record<string, string>
  consents: Record<string, boolean>
}

export type Says = Told

/** What came of sending: gone through, to be mended, or kept to be sent later. */
export type Sent = ({ kind: 'taken' } & Taken) | { kind: 'mend'; errors: Wrong[] } | { kind: 'kept' }

/** What some parts need besides the document, as far as it is known. */
export type Extras = Partial<Given>
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
export type Wrong = FieldWrong
