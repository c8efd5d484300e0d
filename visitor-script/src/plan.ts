import type { Entry, Plan, Visit, Wants, Watched } from './generated/wire'
import { PHONE } from './render/look'

export type { Entry, Plan, Wants }

export interface Moment extends Watched {
  /** What must come once more, from now on: such a one is watched by the rest of the code. */
  anew?: Moment
}

export type Device = Visit['device']

/** Asked of the media, not of the window's width, for which the page would have to be laid out at once. */
export function device(): Device {
  if (matchMedia(PHONE).matches) return 'phone'
  return matchMedia('(pointer:coarse) and (max-width:1366px)').matches ? 'tablet' : 'desktop'
}
