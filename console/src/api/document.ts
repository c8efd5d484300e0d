import type { Schemas } from './client'

export type TouchpointDocument = Schemas['Document']
export type Look = Schemas['Look']
export type LookValues = Schemas['LookValues']
export type FullLook = Schemas['FullLook']
export type FullValues = Schemas['FullValues']
export type Font = NonNullable<FullLook['font']>
export type Step = TouchpointDocument['steps'][number]
export type Part = Step['parts'][number]
export type PartOf<K extends Part['kind']> = Extract<Part, { kind: K }>
export type Does = PartOf<'button'>['does']
/** Changes a document; `what` names the thing that changes, so that a run of changes is one step. */
export type Change = [what: string, change: (document: TouchpointDocument) => unknown]
