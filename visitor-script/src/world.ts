import type { Watch } from './moments'
import type { Net } from './net'
import type { Outside } from './outside'
import type { Entry, Plan, Wants } from './plan'
import type { Drawing, Extras, Mode, Rest, Sent, Values, Ways } from './render'
import type { Store } from './memory'
import type { Visit } from './visit'

/** What a touchpoint on the page needs of the script around it. */
export interface World {
  readonly base: string
  readonly store: Store
  readonly net: Net
  readonly outside: Outside
  readonly visit: Visit
  happened(what: string, entry: Entry, channel?: string): void
  answered(entry: Entry, values: Values, tags?: string[]): void
  close(entry: Entry): void
  open(slug: string): void
  rest(): Promise<More | undefined>
  ways?: Ways
}

/** The script at work on one page, as the second file sees it (./app.ts is the one that does it). */
export interface App extends World {
  /** The short name of the touchpoint whose own page this is. */
  readonly hosted: string | undefined
  readonly entries: Entry[]
  /** The slots that the last plan was asked for. */
  readonly asked: string[]
  /** Everything that is drawn, in the page's own places too. */
  readonly drawn: Set<Drawing>
  readonly onScreen: ReadonlyMap<string, { shown: Shown }>
  ready(entry: Entry): void
  ask(open?: string): Promise<Plan | null>
  put(entry: Entry, mode: Mode, place?: Element): Promise<void>
}

/** One touchpoint drawn on the page, with everything that can be done in it. */
export interface Shown {
  readonly entry: Entry
  readonly mode: Mode
  readonly drawing: Drawing
  /** What was sent last, for a correction of it. */
  readonly last: { id: string; step: string; values: Values }
  submit(step: string, values: Values, trap: string, corrects?: string): Promise<Sent>
}

/** What comes with the second file: more parts, what more a drawing can do, and what is seldom needed. */
export interface More extends Rest {
  watchOne: Watch
  /** A rehearsal in the real page, where a link asks for one. */
  begin: (app: App) => void
  solve: (world: World, entry: Entry) => Promise<string>
  extras: (world: World, entry: Entry, code: boolean) => Promise<Extras>
  tend: (app: App) => Promise<void>
  unlearn: (app: App, errors: { field: string }[]) => void
  inPlace: (app: App, entry: Entry) => Promise<boolean>
  offer: (shown: Shown, email: string) => void
  readPage: (wants: Wants) => { kinds: string[]; signed_in: boolean }
}
