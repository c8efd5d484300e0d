export { Drawing, type Mode } from './draw'
export type { Actions, Part, Says, SeenDocument, Sent, TouchpointDocument, Values } from './types'
