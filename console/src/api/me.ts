import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export const meOptions = queryOptions({
  queryKey: ['me'],
  queryFn: () => take(client.GET('/api/me')),
  staleTime: 60_000,
})

export function useMe() {
  return useQuery(meOptions)
}

/** What whoever is signed in may do; what they may not is shown and cannot be touched. */
export function useMay() {
  const { data } = useMe()
  return (right: 'hours' | 'business' | 'everybody'): boolean =>
    (right === 'everybody' ? data.value?.member?.sees_everybody : data.value?.rights.includes(right)) ?? false
}

/** Zones and countries by name, with a guess from what the browser says of itself. */
export function usePlaces(zone: string) {
  return useQuery({
    queryKey: ['places', zone],
    queryFn: () => take(client.GET('/api/places', { params: { query: { zone } } })),
    staleTime: Infinity,
  })
}

export function useFoundBusiness() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['FoundIn']) => take(client.POST('/api/business', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

/** Asks the address that mail is to come from once more. */
export async function askSender(): Promise<void> {
  await take(client.POST('/api/business/sender', {}))
}

export function useChangeBusiness() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['BusinessIn']) => take(client.PUT('/api/business', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export function useCounter() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['CounterIn']) => take(client.PUT('/api/counter', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

/** Who is at the counter, and when the others are back. */
export function useAtCounter() {
  return useQuery({ queryKey: ['counter'], queryFn: () => take(client.GET('/api/counter')) })
}

export async function setUsualHours(member_id: number, hours_id: number | null): Promise<void> {
  await take(
    client.PUT('/api/members/{member_id}/hours', { params: { path: { member_id } }, body: { hours_id } }),
  )
}

export function useMembers() {
  return useQuery({ queryKey: ['members'], queryFn: () => take(client.GET('/api/members')) })
}

export const useInvitations = () =>
  useQuery({ queryKey: ['invitations'], queryFn: () => take(client.GET('/api/invitations')) })

export async function invite(body: Schemas['InviteIn']) {
  return take(client.POST('/api/invitations', { body }))
}

export async function takeBack(invitation_id: number): Promise<void> {
  await take(client.DELETE('/api/invitations/{invitation_id}', { params: { path: { invitation_id } } }))
}

export async function joinBusiness(invitation_id: number): Promise<void> {
  await take(client.POST('/api/invitations/{invitation_id}/join', { params: { path: { invitation_id } } }))
}

export async function changeMember(member_id: number, body: Schemas['RoleIn']) {
  return take(client.PUT('/api/members/{member_id}', { params: { path: { member_id } }, body }))
}

/** Take somebody out, or leave; what is theirs to do goes to `heir`, or (null) to everybody. */
export async function takeOut(member_id: number, heir: number | null): Promise<void> {
  await take(client.DELETE('/api/members/{member_id}', { params: { path: { member_id }, query: { heir } } }))
}

/** How much is open and given to a member. */
export async function workOf(member_id: number): Promise<number> {
  return (await take(client.GET('/api/members/{member_id}/work', { params: { path: { member_id } } }))).open
}

export async function openBusiness(business_id: number): Promise<void> {
  await take(client.POST('/api/me/business', { body: { business_id } }))
}

export async function renameMe(name: string): Promise<void> {
  await take(client.PUT('/api/me', { body: { name } }))
}

/** A text as a QR code, as SVG. */
export async function qrOf(text: string): Promise<string> {
  return (await take(client.POST('/api/me/qr', { body: { text } }))).svg
}

export async function readLog(query: { verb?: string; member?: number; before?: number }) {
  return take(client.GET('/api/audit', { params: { query } }))
}
