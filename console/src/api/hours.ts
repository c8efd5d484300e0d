import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import type { Ref } from 'vue'
import { client, sendFile, take, type Schemas } from './client'

export type Stretch = Schemas['Stretch']
export type HoursDocument = Schemas['OpeningHours']
export type HoursEdit = Schemas['HoursIn']
export type HoursSet = Schemas['SetOut']
export type Reply = Schemas['Reply']
export type Told = Schemas['ToldOut']
export type Hours = Schemas['HoursOut']

export const hoursOptions = queryOptions({
  queryKey: ['hours'],
  queryFn: () => take(client.GET('/api/hours')),
})
export const useHours = () => useQuery(hoursOptions)

export function useSaveHours() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, edit }: { id: number; edit: HoursEdit }) =>
      take(client.PUT('/api/hours/{hours_id}', { params: { path: { hours_id: id } }, body: edit })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

/** Which due times saving this would move; nothing is kept. */
export const wouldMove = (hours_id: number, body: HoursEdit) =>
  take(
    client.POST('/api/hours/{hours_id}/would-move', {
      params: { path: { hours_id } },
      body,
    }),
  )

const of = (hours_id: number) => ({ path: { hours_id } })

/** A week as people write it, as stretches; nothing is kept. */
/** A week as it was written, and the pieces that could not be read. */
export async function readWeek(text: string) {
  const { week, unread } = await take(client.POST('/api/hours/read', { body: { text } }))
  return { week: week as HoursDocument['week'], unread }
}

export async function makeHours(name: string, document: HoursDocument) {
  return take(client.POST('/api/hours', { body: { name, document } }))
}

export async function renameHours(id: number, name: string): Promise<void> {
  await take(client.PUT('/api/hours/{hours_id}/name', { params: of(id), body: { name } }))
}

export async function dropHours(id: number, instead?: number): Promise<void> {
  await take(
    client.DELETE('/api/hours/{hours_id}', { params: { ...of(id), query: instead ? { instead } : {} } }),
  )
}

export async function bringHoursBack(id: number): Promise<void> {
  await take(client.POST('/api/hours/{hours_id}/back', { params: of(id) }))
}

export const hoursOut = (id: number) => take(client.GET('/api/hours/{hours_id}/out', { params: of(id) }))
export const makeHoursAddress = (id: number) =>
  take(client.POST('/api/hours/{hours_id}/out', { params: of(id) }))
export const dropHoursAddress = (id: number) =>
  take(client.DELETE('/api/hours/{hours_id}/out', { params: of(id) }))

/** What goes by a set of hours, in words. */
export async function whatFollows(hours_id: number): Promise<string> {
  return (await take(client.GET('/api/hours/{hours_id}/followed', { params: of(hours_id) }))).words
}

export async function followHours(site_id: number, hours_id: number): Promise<void> {
  await take(client.PUT('/api/sites/{site_id}/hours', { params: { path: { site_id } }, body: { hours_id } }))
}

export type ReplyCell = Schemas['ReplyCellOut']
export type ReplyTable = Schemas['TableOut']

/** The table of replies in one language; "" is the business's own. */
export function useReplies(language: Ref<string>) {
  return useQuery({
    queryKey: ['replies', language],
    queryFn: () => take(client.GET('/api/replies', { params: { query: { language: language.value } } })),
  })
}

/** Says what is told in a cell; `edit` says what it was made from, so that what others have changed stays. */
export async function saveReply(
  situation: string,
  language: string,
  column: string,
  edit: { reply: Reply; based_on?: Reply | undefined; all_the_same?: boolean },
): Promise<void> {
  await take(
    client.PUT('/api/replies/{situation}', {
      params: { path: { situation } },
      body: { all_the_same: false, ...edit, column, language },
    }),
  )
}

export async function putBackReply(situation: string, column: string, language: string): Promise<void> {
  await take(
    client.DELETE('/api/replies/{situation}', {
      params: { path: { situation }, query: { column, language } },
    }),
  )
}

export interface Asked {
  day: string
  time: string
  hours_id?: number
  free: boolean
  column?: string
  language?: string
}

/** What somebody would be told at a time, and why. */
export async function explain(asked: Asked) {
  return take(client.GET('/api/hours/explain', { params: { query: asked } }))
}

export function useHolidays(part: Ref<string>) {
  return useQuery({
    queryKey: ['holidays', part],
    queryFn: () => take(client.GET('/api/hours/holidays', { params: { query: { part: part.value } } })),
  })
}

export type CalendarSaid = Omit<Schemas['CalendarOut'], 'exceptions'> & {
  exceptions: HoursDocument['exceptions']
}

/** What an iCalendar file would do to hours as they are being edited; nothing is kept. */
export const lookAtCalendar = (file: File, document: HoursDocument) =>
  sendFile<CalendarSaid>('/api/hours/calendar', file, 'This file could not be read.', {
    document: JSON.stringify(document),
  })
