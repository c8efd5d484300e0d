import { queryOptions, useQuery } from '@tanstack/vue-query'
import type { Run } from '@/parts/fields/runs'
import { client, take, type Schemas } from './client'

export interface ChannelPerson {
  name: string
  words: string
  picture: string | null
  handle: string
  hours: number[]
  member: number | null
}
export interface ChannelDocument {
  version: 1
  kind: string
  label: string
  icon: string
  colour: string | null
  template: string | null
  handle: string
  subject: Run[]
  text: Run[]
  people: ChannelPerson[]
  pick: 'visitor' | 'first-reachable'
  devices: ('desktop' | 'phone')[]
  hours: number[]
  while_closed: 'show' | 'say' | 'hide'
  opens: 'new' | 'same' | 'ask-first'
  goal: boolean
  gateway: number | null
}
export type Channel = Omit<Schemas['ChannelOut'], 'document'> & { document: ChannelDocument }
export type Channels = Omit<Schemas['ChannelDayOut'], 'channels'> & { channels: Channel[] }

const body = (document: ChannelDocument) => ({ document: document as unknown as Record<string, never> })
const of = (channel_id: number) => ({ path: { channel_id } })

export const channelsOptions = queryOptions({
  queryKey: ['channels'],
  // The API says "object" of a document; its fields are those of the channel.
  queryFn: async () => (await take(client.GET('/api/channels'))) as unknown as Channels,
})
export const useChannels = () => useQuery(channelsOptions)

export async function makeChannel(document: ChannelDocument): Promise<Channel> {
  return (await take(client.POST('/api/channels', { body: body(document) }))) as unknown as Channel
}

export async function saveChannel(id: number, document: ChannelDocument): Promise<Channel> {
  return (await take(client.PUT('/api/channels/{channel_id}', { params: of(id), body: body(document) }))) as unknown as Channel
}

export async function dropChannel(id: number): Promise<void> {
  await take(client.DELETE('/api/channels/{channel_id}', { params: of(id) }))
}

export async function bringChannelBack(id: number): Promise<void> {
  await take(client.POST('/api/channels/{channel_id}/back', { params: of(id) }))
}

export async function orderChannels(channel_ids: number[]): Promise<void> {
  await take(client.POST('/api/channels/order', { body: { channel_ids } }))
}

/** What was pasted, understood; nothing is kept. */
export const readPasted = (text: string) => take(client.POST('/api/channels/read', { body: { text } }))

export const readExample = (example: string) => take(client.POST('/api/channels/template', { body: { example } }))

/** How visitors meet it in each situation; nothing is kept. */
export const previewChannel = (document: ChannelDocument, channel: string) =>
  take(client.POST('/api/channels/preview', { body: { ...body(document), channel, language: '' } }))
