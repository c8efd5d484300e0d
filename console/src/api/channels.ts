import { queryOptions, useQuery } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export type ChannelDocument = Schemas['Channel']
export type Channel = Schemas['ChannelOut']

const of = (channel_id: number) => ({ path: { channel_id } })

export const channelsOptions = queryOptions({
  queryKey: ['channels'],
  queryFn: () => take(client.GET('/api/channels')),
})
export const useChannels = () => useQuery(channelsOptions)

export async function makeChannel(document: ChannelDocument): Promise<Channel> {
  return take(client.POST('/api/channels', { body: { document } }))
}

export async function saveChannel(id: number, body: Schemas['ChannelEditIn']): Promise<Channel> {
  return take(client.PUT('/api/channels/{channel_id}', { params: of(id), body }))
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

export const readExample = (example: string) =>
  take(client.POST('/api/channels/template', { body: { example } }))

/** How visitors meet it in each situation; nothing is kept. */
export const previewChannel = (document: ChannelDocument, channel: string) =>
  take(client.POST('/api/channels/preview', { body: { document, channel, language: '' } }))
