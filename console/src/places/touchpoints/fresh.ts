import type { ComputedRef, InjectionKey } from 'vue'
import type { Addable } from '@/api/touchpoints'
import type { Part, TouchpointDocument } from '@/api/document'

/** Stands for the logo of the site's house style. */
/** The words with which something new begins, in the language of the touchpoint. */
export const FIRST_WORDS: InjectionKey<ComputedRef<Addable['words'] | undefined>> = Symbol('first words')
export const HOUSE_LOGO = 'house-logo'
const parts = (document: TouchpointDocument): Part[] => document.steps.flatMap((step) => step.parts)

function free(stem: string, taken: Set<string>): string {
  if (stem !== 'p' && !taken.has(stem)) return stem
  let number = 1
  while (taken.has(`${stem}${number}`)) number++
  return `${stem}${number}`
}

/** A part of its own from a pattern: with an id, and a field's name, that nothing else has. */
export function freshPart(document: TouchpointDocument, pattern: Part): Part {
  const every = parts(document)
  const made = JSON.parse(JSON.stringify(pattern)) as Part
  made.id = free('p', new Set(every.map((one) => one.id)))
  if ('name' in made)
    made.name = free(
      made.name.replace(/\d+$/, ''),
      new Set(every.flatMap((one) => ('name' in one ? [one.name] : []))),
    )
  return made
}

export function freshStep(
  document: TouchpointDocument,
  following: Addable['following'],
): TouchpointDocument['steps'][number] {
  const id = free('step', new Set(document.steps.map((one) => one.id)))
  const made = { id, name: `Step ${document.steps.length + 1}`, parts: [] as Part[] }
  made.parts = following.map((one) => freshPart(document, one))
  return made
}

/** The step that sending leads to: the last one, or one that thanks, which is added. */
export function thanksOf(document: TouchpointDocument, thanks: Addable['thanks']): string {
  const last = document.steps[document.steps.length - 1]
  if (last && document.steps.length > 1) return last.id
  const made = {
    id: free('thanks', new Set(document.steps.map((one) => one.id))),
    name: 'Thanks',
    parts: [] as Part[],
  }
  document.steps.push(made)
  for (const one of thanks) made.parts.push(freshPart(document, one))
  return made.id
}

/** Takes a step out, and everything that led to it now leads on where it led. */
export function dropStep(document: TouchpointDocument, id: string): void {
  const at = document.steps.findIndex((one) => one.id === id)
  if (at < 0 || document.steps.length < 2) return
  const to = document.steps[at + 1]?.id ?? null
  document.steps.splice(at, 1)
  if (document.after.confirm.next === id) document.after.confirm.next = null
  const mend = (next: string | null) => (next === id ? to : next)
  for (const part of parts(document)) {
    if (part.kind === 'button') part.does.next = mend(part.does.next)
    if (part.kind === 'links') for (const item of part.items) item.does.next = mend(item.does.next)
    if (part.kind === 'field' || part.kind === 'question')
      for (const option of part.options) option.next = mend(option.next)
    if (part.kind === 'score')
      part.bands = part.bands.flatMap((one) => (one.next !== id ? [one] : to ? [{ ...one, next: to }] : []))
  }
}
