import type { Feature } from './feature'
import type {
  Actions,
  Around,
  Does,
  FullValues,
  Made,
  Mode,
  Part,
  PartOf,
  SeenDocument,
  Sent,
  Spoken,
  Step,
  Values,
  Wrong,
} from './types'

/** A touchpoint that is drawn, as its parts and features see it (./draw.ts is the one that does it). */
export interface Drawing {
  readonly page: Document
  readonly document: SeenDocument
  readonly mode: Mode
  readonly actions: Actions
  readonly around: Around
  readonly host: HTMLElement
  readonly root: ShadowRoot
  readonly card: HTMLElement
  readonly words: Spoken
  readonly view: Window & typeof globalThis
  readonly behind: HTMLElement | null
  readonly step: Step
  /** Whether something has been typed or ticked. */
  readonly began: boolean
  look: FullValues
  made: Made[]
  typed: Values
  /** What is undone when it goes. */
  undo: (() => void)[]
  /** How to let go of the page. */
  held: (() => void)[]
  show(parent: Element): void
  stand(): void
  remove(): void
  draw(step: string): void
  leave(): void
  heading(): HTMLElement | null
  start(): void
  keepTyped(): void
  unfold(open: boolean): boolean
  choose(name: string, value: string): void
  clicked(does: Does, event: Event): void
  settle(sent: Sent): void
  mend(errors: Wrong[]): void
  mayFocus(): boolean
  again(): void
  notice(text?: string, ...more: Node[]): void
}

export type Features = ((drawing: Drawing) => Feature)[]
export type Maker<K extends Part['kind'] = Part['kind']> = (drawing: Drawing, part: PartOf<K>) => Made
export type Makers = { [K in Part['kind']]?: Maker<K> }

/** What a drawing can besides what it does by itself; it comes with the second file. */
export interface Rest {
  features: Features
  mend: (drawing: Drawing, errors: Wrong[]) => boolean
  makers: Makers
  css: string
  more: Record<string, Maker<'field'>>
}
