import { DrawnTouchpoint } from './draw'
import type { Drawing, Features, Rest } from './drawing'
import { register } from './parts'
import type { Actions, Around, Mode, SeenDocument } from './types'

let features: Features = []

/** Take in the rest of the code: from now on everything can be drawn. */
export function learn(rest: Rest): void {
  register(rest)
  features = rest.features
}

/** A document drawn, not on the page yet. */
export function draw(
  page: Document,
  document: SeenDocument,
  mode: Mode,
  actions: Actions,
  around: Around,
): Drawing {
  return new DrawnTouchpoint(page, document, mode, actions, around, features)
}
