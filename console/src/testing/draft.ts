import type { Schemas } from '@/api/client'
import { answer, answering, api } from './server'

export const DRAFT = '/api/touchpoints/2'

/**
 * A draft as the server keeps it: each change that is sent is a version, and can be taken back.
 * Returns what it holds just now.
 */
export function keepingDraft(): () => Schemas['DraftOut'] {
  const versions = [answer<Schemas['DraftOut']>(DRAFT)]
  let at = 0
  const now = () => ({
    ...versions[at]!,
    number: versions[0]!.number + at,
    can_undo: at > 0,
    can_redo: at < versions.length - 1,
  })
  answering(
    api.get('/api/touchpoints/{touchpoint_id}', ({ response }) => response(200).json(now())),
    api.put('/api/touchpoints/{touchpoint_id}/draft', async ({ request, response }) => {
      const { document } = await request.json()
      versions.splice(at + 1, versions.length, { ...now(), document: document as never })
      at += 1
      return response(200).json(now())
    }),
    api.post('/api/touchpoints/{touchpoint_id}/undo', ({ response }) => {
      at -= 1
      return response(200).json(now())
    }),
    api.post('/api/touchpoints/{touchpoint_id}/redo', ({ response }) => {
      at += 1
      return response(200).json(now())
    }),
    api.put('/api/touchpoints/{touchpoint_id}/name', async ({ request, response }) => {
      versions[at] = { ...versions[at]!, name: (await request.json()).name }
      return response(200).json(now())
    }),
  )
  return now
}
