import type { Drawing } from '../render/drawing'
import type { Spoken } from '../render/types'

/** Words of ours by their name, in the touchpoint's language, with their places filled. */
export function say(
  { words }: Drawing,
  name: keyof Spoken,
  places: Record<string, string | number> = {},
): string {
  return ((words as Partial<Spoken>)[name] ?? '').replace(/\{(\w+)\}/g, (_, place: string) =>
    String(places[place] ?? ''),
  )
}
