import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { open, screen, sentTo, shows, user, waitFor, within } from '@/testing/open'
import { answer, answering, api } from '@/testing/server'

const rows = answer<Schemas['TouchpointOut'][]>('/api/touchpoints')
const tide = rows.find((one) => one.slug === 'tide-table')!
const changed = () =>
  answering(
    api.put('/api/touchpoints/{touchpoint_id}/name', ({ response }) => response(200).json(tide as never)),
    api.post('/api/touchpoints/{touchpoint_id}/copy', ({ response }) => response(201).json(tide as never)),
    api.delete('/api/touchpoints/{touchpoint_id}', ({ response }) => response(204).empty()),
    api.post('/api/touchpoints/{touchpoint_id}/bring-back', ({ response }) =>
      response(200).json(tide as never),
    ),
    api.post('/api/touchpoints/{touchpoint_id}/off', ({ response }) => response(200).json(tide as never)),
    api.put('/api/touchpoints/order', ({ response }) => response(204).empty() as never),
  )
const more = async (item: string) => {
  await user.click(await screen.findByRole('button', { name: `More for ${tide.name}` }))
  await user.click(await screen.findByRole('menuitem', { name: item }))
}

describe('the list of touchpoints', () => {
  it('is searched by a name', async () => {
    await open('/touchpoints')
    await user.type(await screen.findByLabelText('Search touchpoints'), 'tide')
    await waitFor(() => expect(document.querySelectorAll('tbody [data-name]')).toHaveLength(1))
  })

  it('has each renamed where it stands', async () => {
    changed()
    await open('/touchpoints')
    await more('Rename')
    const name = await screen.findByLabelText(`Name of ${tide.name}`)
    await user.clear(name)
    await user.type(name, 'Tides')
    await user.tab()
    expect(await sentTo('PUT', `/api/touchpoints/${tide.id}/name`)).toMatchObject({ name: 'Tides' })
  })

  it('has each copied, and thrown away until it is had back', async () => {
    changed()
    await open('/touchpoints')
    await more('Make a copy')
    await sentTo('POST', `/api/touchpoints/${tide.id}/copy`)
    await more('Throw away')
    await sentTo('DELETE', `/api/touchpoints/${tide.id}`)
    await user.click(await screen.findByRole('button', { name: 'Undo' }))
    await sentTo('POST', `/api/touchpoints/${tide.id}/bring-back`)
  })

  it('turns each off where it stands', async () => {
    changed()
    await open('/touchpoints')
    await user.click(await screen.findByRole('button', { name: `Turn off ${tide.name}` }))
    await sentTo('POST', `/api/touchpoints/${tide.id}/off`)
  })

  it('says why one shows on a page or not', async () => {
    answering(
      api.post('/api/page-map/why', ({ response }) =>
        response(200).json({ reasons: [], sentences: [], next: null } as never),
      ),
    )
    await open('/touchpoints')
    const cells = await screen.findAllByRole('button', { name: / on \// })
    await user.click(cells[0]!)
    expect(await screen.findByRole('region', { name: 'Why' })).toBeTruthy()
  })
})

describe('a new one', () => {
  it('is chosen by its purpose and by how much it asks', async () => {
    await open('/touchpoints?new')
    const group = within(await screen.findByRole('radiogroup', { name: 'Starter' }))
    await waitFor(() => expect(group.getAllByRole('radio').length).toBeGreaterThanOrEqual(16))
    await user.selectOptions(screen.getByLabelText('Purpose'), 'offer')
    expect(group.getAllByRole('radio')).toHaveLength(3)
    await user.selectOptions(screen.getByLabelText('How much it asks'), 'nothing')
    await shows(/Ask for a little more/)
    expect(group.queryAllByRole('radio')).toHaveLength(0)
  })

  it('is made by its own name', async () => {
    const draft = answer<Schemas['DraftOut']>('/api/touchpoints/2')
    answering(api.post('/api/touchpoints', ({ response }) => response(201).json(draft)))
    await open('/touchpoints?new')
    const group = within(await screen.findByRole('radiogroup', { name: 'Starter' }))
    await user.click((await group.findAllByRole('radio'))[0]!)
    const name = screen.getByLabelText('Your own name for it')
    await user.clear(name)
    await user.type(name, 'Boat club news')
    await user.click(screen.getByRole('button', { name: 'Start with this' }))
    expect(await sentTo('POST', '/api/touchpoints')).toMatchObject({ name: 'Boat club news' })
    await waitFor(() => expect(location.pathname).toBe(`/touchpoints/${draft.id}`))
  })
})

describe('its answers', () => {
  it('are a table', async () => {
    await open('/touchpoints/2/answers')
    await waitFor(() => expect(screen.getAllByRole('row').length).toBeGreaterThan(5))
  })
})
