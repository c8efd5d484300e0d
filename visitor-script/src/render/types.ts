import type { TouchpointDocument } from '../generated/document'

export type { TouchpointDocument }

/** A document as visitors get it: without rules and what comes after. */
export type SeenDocument = Omit<TouchpointDocument, 'show' | 'after'>
export type Part = SeenDocument['steps'][number]['parts'][number]

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
  | { kind: 'taken'; next: string | null; says: Says | null; suggest: string | null }
  | { kind: 'mend'; errors: { field: string; message: string }[] }
  | { kind: 'kept' }

export interface Actions {
  send(step: string, values: Values): Promise<Sent>
  /** The visitor takes the address that was offered instead of the one they typed. */
  correct(email: string): Promise<Sent>
  close(): void
  started(): void
  clicked(): void
}
