import { useQuery } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export type Turn = Schemas['TalkTurnOut']

/** One turn of a script played; nothing is kept. */
export async function rehearseTalk(
  script: Schemas['Script'],
  state: Turn['state'] | null,
  said: Turn['state'] | null,
): Promise<Turn> {
  return take(client.POST('/api/talks/rehearse', { body: { script, state, said } }))
}

export const useGateways = () =>
  useQuery({ queryKey: ['gateways'], queryFn: () => take(client.GET('/api/gateways')) })

export const makeGateway = (body: Schemas['GatewayAddIn']) => take(client.POST('/api/gateways', { body }))

export const bringGatewayBack = (gateway_id: number) =>
  take(client.POST('/api/gateways/{gateway_id}/back', { params: { path: { gateway_id } } }))

export async function dropGateway(gateway_id: number): Promise<void> {
  await take(client.DELETE('/api/gateways/{gateway_id}', { params: { path: { gateway_id } } }))
}
