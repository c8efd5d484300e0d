import { Drawing, type Mode } from './draw'
import { register, type More } from './parts'
import type { Actions, Around, SeenDocument } from './types'

let Kind: typeof Drawing = Drawing

/** Take in the rest of the code: from now on everything can be drawn. */
export function learn(more: More): void {
  register(more)
  Kind = more.full(Drawing)
}

/** A document drawn, not on the page yet. */
export function draw(
  page: Document,
  document: SeenDocument,
  mode: Mode,
  actions: Actions,
  around: Around,
): Drawing {
  return new Kind(page, document, mode, actions, around)
}
