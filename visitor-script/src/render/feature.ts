import type { Does, Part, Sent } from './types'

/**
 * Something that a drawing can besides what it does by itself. It is told where the drawing comes to each of
 * these; where it answers `true` it has seen to it itself, and nobody else does.
 */
export interface Feature {
  /** All is there but the first step, which is to be drawn. */
  begin?(): unknown
  painted?(): void
  /** It is on the page now. */
  shown?(): void
  /** It takes hold of the page, which may have changed beneath it. */
  stands?(): void
  /** A part is to be put into its form. */
  puts?(form: HTMLElement, part: Part, element: HTMLElement): boolean
  drawn?(): unknown
  /** The visitor wants it gone. */
  leaves?(): boolean
  unfolds?(open: boolean): boolean
  /** Something was typed or ticked. */
  started?(): void
  /** One of several was chosen, and stands among what was typed. */
  chosen?(): void
  /** What a click does that the drawing itself does not know. */
  clicked?(does: Does): void
  /** The form was sent off on a step that sends nothing. */
  forward?(): void
  /** What was sent has been taken, and the step that comes then is drawn. */
  settled?(sent: Taken): void
}

export type Taken = Extract<Sent, { kind: 'taken' }>
