import type { Features } from '../render/drawing'
import { dock } from './dock'
import { crossing, laidOut, painting } from './dress'
import { given } from './given'
import { arranged, bar, goesByItself, spots } from './standing'
import { steps } from './steps'

/**
 * Everything that the loader's own drawing leaves out, in the order in which it is told; the steps come last,
 * as they draw the first of them.
 */
export const FEATURES: Features = [
  dock,
  given,
  painting,
  laidOut,
  crossing,
  bar,
  goesByItself,
  arranged,
  spots,
  steps,
]
