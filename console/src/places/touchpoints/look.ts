import { computed, type Ref } from 'vue'
import { choices } from '@/api/parts.json'
import type { FullLook, FullValues } from '@/api/document'
import type { Change, Look, LookValues, TouchpointDocument } from '@/api/document'

type Name = Exclude<keyof LookValues, 'colours'>
export type Role = keyof LookValues['colours']
import { COLOURS as COLOUR_NAMES } from '@/lib/names'

export type Screen = 'all' | 'phone'

export const PLACES: Record<string, string> = choices['look.place']
export const COLOURS: Record<Role, string> = COLOUR_NAMES

/** What of the look can be read and set on a screen. */
export type LookHandle = ReturnType<typeof useLook>

/** The values of a look as one screen sees them, and how to change them there. */
export function useLook(
  document: Ref<TouchpointDocument>,
  worked: Ref<FullLook>,
  screen: Ref<Screen>,
  change: (...what: Change) => void,
) {
  const own = computed<LookValues>(() =>
    screen.value === 'phone' ? document.value.look.phone : document.value.look,
  )
  const shown = computed<FullValues>(() => (screen.value === 'phone' ? worked.value.phone : worked.value))
  const from = computed(() =>
    screen.value === 'phone'
      ? 'what the desktop has'
      : document.value.look.house
        ? 'the house style'
        : 'the usual',
  )
  const of = (look: Look): LookValues => (screen.value === 'phone' ? look.phone : look)

  function value<K extends Name>(name: K): FullValues[K & keyof FullValues] {
    return (own.value[name] ?? shown.value[name as keyof FullValues]) as FullValues[K & keyof FullValues]
  }
  const departs = (name: Name): boolean => own.value[name] !== null
  function set<K extends Name>(name: K, to: LookValues[K]): void {
    change(`look.${screen.value}.${name}`, (edited) => (of(edited.look)[name] = to))
  }
  const back = (name: Name): void => set(name, null)
  const colour = (role: Role): string =>
    own.value.colours[role] ?? document.value.look.colours[role] ?? shown.value.colours[role]
  const colourDeparts = (role: Role): boolean => own.value.colours[role] !== null
  function setColour(role: Role, to: string | null): void {
    change(`colour.${screen.value}.${role}`, (edited) => (of(edited.look).colours[role] = to))
  }
  return { value, departs, set, back, colour, colourDeparts, setColour, from }
}
