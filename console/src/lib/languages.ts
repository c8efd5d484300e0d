import { choices } from '@/api/parts.json'

/** What visitors may be spoken to in, by its code. */
export const LANGUAGES: Record<string, string> = Object.fromEntries(
  Object.entries(choices.language).filter(([code]) => code),
)
