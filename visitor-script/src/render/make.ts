import { Drawing, type Mode } from './draw'
import type { Features } from './feature'
import { register, type More } from './parts'
import type { Actions, Around, SeenDocument } from './types'

let features: Features = []

/** Take in the rest of the code: from now on everything can be drawn. */
export function learn(more: More): void {
  register(more)
  features = more.features
}

/** A document drawn, not on the page yet. */
export function draw(
  page: Document,
  document: SeenDocument,
  mode: Mode,
  actions: Actions,
  around: Around,
): Drawing {
  return new Drawing(page, document, mode, actions, around, features)
}
