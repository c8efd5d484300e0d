import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { client, csrf, Failure, take, type Schemas } from './client'

export type Asset = Schemas['AssetOut']
export type AssetKind = 'picture' | 'video' | 'file'

export function useLibrary(kind: MaybeRefOrGetter<AssetKind>) {
  return useQuery({
    queryKey: computed(() => ['library', toValue(kind)]),
    queryFn: () => take(client.GET('/api/library', { params: { query: { kind: toValue(kind) } } })),
  })
}

/** Sends a file to the library; throws a Failure in words. */
export async function upload(file: File, kind: AssetKind, description = ''): Promise<Asset> {
  const body = new FormData()
  body.append('file', file)
  body.append('kind', kind)
  body.append('description', description)
  const answer = await fetch('/api/library', { method: 'POST', body, headers: { 'X-CSRFToken': csrf() } })
  const said = (await answer.json().catch(() => ({}))) as Asset & { title?: string }
  if (!answer.ok) throw new Failure(answer.status, said.title ?? 'This file could not be taken in.')
  return said
}

export function useUpload() {
  const queries = useQueryClient()
  return async (file: File, kind: AssetKind): Promise<Asset> => {
    const asset = await upload(file, kind)
    await queries.invalidateQueries({ queryKey: ['library'] })
    return asset
  }
}

export async function describeAsset(asset_id: number, name: string, description: string): Promise<Asset> {
  return take(client.PUT('/api/library/{asset_id}', { params: { path: { asset_id } }, body: { name, description } }))
}

export async function forgetAsset(asset_id: number): Promise<void> {
  await take(client.DELETE('/api/library/{asset_id}', { params: { path: { asset_id } } }))
}

export const pictureOf = (asset: string, width = 480): string => `/m/${asset}/${width}.webp`
