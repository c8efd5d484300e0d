import type { Part, SeenDocument, Step } from '../render/types'

/** The step that an answer to one part chooses. */
function chosen(part: Part, answers: Record<string, string>): string | null {
  if (part.kind === 'score') {
    const given = answers[part.name] ?? ''
    const band = /^\d+$/.test(given)
      ? part.bands.find((one) => one.least <= Number(given) && Number(given) <= one.most)
      : undefined
    return band?.next ?? null
  }
  if (part.kind !== 'question' && part.kind !== 'field') return null
  return part.options.find((option) => option.value === answers[part.name])?.next ?? null
}

/** The step after one, as its parts say: by an answer, else where its button leads. */
export function nextStep(step: Step, answers: Record<string, string>): string | null {
  for (const part of step.parts) {
    const found = part.hidden ? null : chosen(part, answers)
    if (found) return found
  }
  for (const part of step.parts) {
    if (
      part.kind === 'button' &&
      !part.hidden &&
      (part.does.action === 'send' || part.does.action === 'step')
    )
      return part.does.next
  }
  return null
}

/** Whether an answer without an address can be taken in. */
export function takesNameless(document: SeenDocument): boolean {
  return document.purpose !== 'sign-up' && document.purpose !== 'inquiry'
}

/** The step that a field stands in. */
export function stepOf(document: SeenDocument, name: string): string | undefined {
  return document.steps.find((step) => step.parts.some((part) => 'name' in part && part.name === name))?.id
}
