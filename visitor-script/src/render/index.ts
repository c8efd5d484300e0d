export { draw, learn } from './make'
export type { Drawing, Mode } from './draw'
export type {
  Actions,
  Around,
  Does,
  Extras,
  FullLook,
  FullValues,
  Part,
  PartOf,
  Says,
  SeenDocument,
  Sent,
  Typed,
  Values,
  Way,
  Ways,
} from './types'
