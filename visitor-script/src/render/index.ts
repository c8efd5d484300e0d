export { draw, learn } from './make'
export type { Drawing, Rest } from './drawing'
export type {
  Actions,
  Around,
  Does,
  Extras,
  FullLook,
  FullValues,
  Mode,
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
