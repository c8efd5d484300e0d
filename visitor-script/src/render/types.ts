import type { FullLook, FullValues, TouchpointDocument } from '../generated/document'

export type { FullLook, FullValues, TouchpointDocument }

/** A document as visitors get it: without rules and what comes after, its look resolved. */
export type SeenDocument = Omit<TouchpointDocument, 'show' | 'after' | 'look' | 'guard'> & {
  look: FullLook
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
      suggest: string | null
      code: string | null
      tags?: string[]
      file: { url: string; label: string } | null
    }
  | { kind: 'mend'; errors: { field: string; message: string }[] }
  | { kind: 'kept' }

/** What some parts need besides the document. */
export interface Extras {
  slots?: Record<string, { value: string; day: string; time: string }[]>
  hours?: { open: boolean; opens: string; closes: string; days: { day: string; spans: string[]; label: string }[] } | null
  questions?: { id: number; group: string; question: string; answer: string }[]
  code?: string | null
}

/** What a drawing asks of the world around it. */
export interface Actions {
  send(step: string, values: Values, trap: string): Promise<Sent>
  /** Another address that they may have meant. */
  offer(email: string): void
  close(): void
  started(): void
  clicked(): void
  goal(): void
  open(slug: string): void
  helped(question: number, yes: boolean): void
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
