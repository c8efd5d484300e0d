import type { Schemas } from '@/api/client'
import { answer, answering, api } from './server'

export const DRAFT = '/api/touchpoints/2'

type Kept = Schemas['DraftOut']

/**
 * A draft as the server keeps it: each change that is sent is a version, and can be taken back.
 * What `says` answers is said besides, once it is there. Returns what the draft holds just now.
 */
export function keepingDraft(says: (document: Kept['document']) => unknown = () => ({})): () => Kept {
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
      const said = await says(document as Kept['document'])
      versions.splice(at + 1, versions.length, { ...now(), document: document as never })
      at += 1
      return response(200).json(Object.assign(now(), said))
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
