import type { Look, LookValues, TouchpointDocument } from '@visitor/generated/wire'

export type { Look, LookValues, TouchpointDocument }
export type Step = TouchpointDocument['steps'][number]
export type Part = Step['parts'][number]
export type PartOf<K extends Part['kind']> = Extract<Part, { kind: K }>
export type Does = PartOf<'button'>['does']
/** Changes a document; `what` names the thing that changes, so that a run of changes is one step. */
export type Change = [what: string, change: (document: TouchpointDocument) => unknown]
