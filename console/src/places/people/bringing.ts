import type { Column } from '@/api/imports'

/** What the owner has said of a file; where they agreed is kept with when. */
export interface ImportSettings {
  columns: Column[]
  header: boolean
  delimiter: string
  encoding: string
  tags: string
  source: string
  /** "2026-11-24", or empty. */
  date: string
}
