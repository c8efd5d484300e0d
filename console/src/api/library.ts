import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { client, sendFile, take, type Schemas } from './client'

export type Asset = Schemas['AssetOut']
export type AssetKind = 'picture' | 'video' | 'file'

export function useLibrary(kind: MaybeRefOrGetter<AssetKind>) {
  return useQuery({
    queryKey: computed(() => ['library', toValue(kind)]),
    queryFn: () => take(client.GET('/api/library', { params: { query: { kind: toValue(kind) } } })),
  })
}

/** Sends a file to the library; throws a Failure in words. */
export const upload = (file: File, kind: AssetKind, description = '') =>
  sendFile<Asset>('/api/library', file, 'This file could not be taken in.', { kind, description })

export function useUpload() {
  const queries = useQueryClient()
  return async (file: File, kind: AssetKind): Promise<Asset> => {
    const asset = await upload(file, kind)
    await queries.invalidateQueries({ queryKey: ['library'] })
    return asset
  }
}

export async function describeAsset(asset_id: number, name: string, description: string): Promise<Asset> {
  return take(
    client.PUT('/api/library/{asset_id}', { params: { path: { asset_id } }, body: { name, description } }),
  )
}

export async function forgetAsset(asset_id: number): Promise<void> {
  await take(client.DELETE('/api/library/{asset_id}', { params: { path: { asset_id } } }))
}

export const pictureOf = (asset: string, width = 480): string => `/m/${asset}/${width}.webp`
