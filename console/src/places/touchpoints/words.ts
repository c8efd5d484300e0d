import kinds from '@/api/parts.json'
import type { Part, TouchpointDocument } from '@/api/document'

export const PURPOSES: Record<TouchpointDocument['purpose'], string> = kinds.choices.purpose

export const STANCES: Record<TouchpointDocument['stance'], string> = kinds.choices.stance

export const ASKS: Record<string, string> = {
  nothing: 'Asks nothing',
  click: 'A click',
  address: 'An address',
  several: 'Several things',
}

export const INPUTS = kinds.choices.input

const KINDS: Record<Part['kind'], string> = kinds.called

const DOES: Record<string, string> = {
  send: 'that sends',
  close: 'that closes',
  step: 'to another step',
  back: 'back',
  page: 'to a page',
  mail: 'to a mail',
  phone: 'to a call',
  file: 'to a file',
  touchpoint: 'to a touchpoint',
  spot: 'to a spot',
  channel: 'to a channel',
}
export const ACTIONS: Record<string, string> = kinds.choices.action

/** How a part is called in lists. */
export function nameOf(part: Part): string {
  if (part.kind === 'field') return part.name === 'name' ? 'Name field' : INPUTS[part.input]
  return part.kind === 'button' ? `Button ${DOES[part.does.action]}` : KINDS[part.kind]
}

/** The first words of a part. */
export function glimpse(part: Part): string {
  if (part.kind === 'text') return part.html.replace(/<[^>]*>/g, ' ')
  if (part.kind === 'picture' || part.kind === 'video') return part.description
  if (part.kind === 'price') return part.old ? `${part.now}, before ${part.old}` : part.now
  if ('text' in part) return part.text
  return 'label' in part ? part.label : ''
}
