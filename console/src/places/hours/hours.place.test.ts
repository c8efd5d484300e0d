import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { gone, open, screen, sentTo, shows, user, waitFor, within } from '@/testing/open'
import { answer, answering, api, refused, sent } from '@/testing/server'

const hours = answer<Schemas['HoursOut']>('/api/hours')
const form = async () => screen.findByRole('form', { name: hours.main.name })

describe('the week as rows', () => {
  it('takes a stretch past midnight, and says that it runs into the next day', async () => {
    answering(api.put('/api/hours/{hours_id}', ({ response }) => response(204).empty()))
    await open('/hours')
    const rows = within(await form())
    await user.click(rows.getByRole('button', { name: 'Add hours on Friday' }))
    const from = rows.getAllByLabelText('Friday from').at(-1)!
    const to = rows.getAllByLabelText('Friday to').at(-1)!
    await user.clear(from)
    await user.type(from, '20:00')
    await user.clear(to)
    await user.type(to, '00:30')
    await user.tab()
    expect(rows.getByText('until the next day')).toBeTruthy()
    await user.click(rows.getByRole('button', { name: 'Save the hours' }))
    const body = (await sentTo('PUT', `/api/hours/${hours.main.id}`)) as Schemas['HoursIn']
    expect((body.document as { week: unknown[] }).week).toContainEqual({
      day: 'fri',
      from: '20:00',
      to: '00:30',
    })
    await shows(/Visitors are told by the new hours within a second/)
  })

  it('says what is refused at its place, and keeps what was typed', async () => {
    answering(
      api.put('/api/hours/{hours_id}', () =>
        refused(422, 'Something is not right.', { 'hours.week.0.to': 'Must be a time from 00:00 to 24:00' }),
      ),
    )
    await open('/hours')
    const rows = within(await form())
    const to = rows.getByLabelText('Monday to')
    await user.clear(to)
    await user.type(to, '18:00')
    await user.tab()
    await user.click(rows.getByRole('button', { name: 'Save the hours' }))
    expect((await rows.findByRole('alert')).textContent).toContain('Must be a time from 00:00 to 24:00')
    expect((to as HTMLInputElement).value).toBe('18:00')
  })

  it('says which due times would move before it is saved, and puts everything back', async () => {
    answering(
      api.post('/api/hours/{hours_id}/would-move', ({ response }) =>
        response(200).json([
          { followup_id: 34, name: 'Ife Dunmore', was: '2026-11-24T15:25:00Z', now: '2026-11-25T10:25:00Z' },
        ] as never),
      ),
    )
    await open('/hours')
    const rows = within(await form())
    const to = rows.getByLabelText('Tuesday to')
    await user.clear(to)
    await user.type(to, '14:30')
    await user.tab()
    expect((await shows(/when you save/)).closest('[role=status]')?.textContent).toContain('Ife Dunmore')
    await user.click(rows.getByRole('button', { name: 'Put back' }))
    await gone(() => screen.queryByText(/when you save/))
    expect((rows.getByLabelText('Tuesday to') as HTMLInputElement).value).toBe('17:30')
  })

  it('is written in one line, and says what cannot be read', async () => {
    answering(
      api.post('/api/hours/read', async ({ request, response }) => {
        const { text } = await request.json()
        if (text.includes('appointment'))
          return refused(422, 'It cannot be read.', { text: '“by” is no day, and cannot be read as hours' })
        return response(200).json({
          week: [{ day: 'sun', from: '10:00', to: '12:00' }],
          unread: text.includes('tide') ? ['by the tide'] : [],
        })
      }),
    )
    await open('/hours')
    const rows = within(await form())
    const line = rows.getByLabelText('The whole week in one line')
    await user.type(line, 'sat by appointment{Enter}')
    await shows(/“by” is no day/)
    await user.clear(line)
    await user.type(line, 'Sun 10-12')
    await user.click(rows.getByRole('button', { name: 'Read it' }))
    expect(((await rows.findByLabelText('Sunday to')) as HTMLInputElement).value).toBe('12:00')
    expect(rows.queryByLabelText('Monday to')).toBeNull()
    await shows(/not saved yet/)
    await user.clear(line)
    await user.type(line, 'Sun 10-12, by the tide{Enter}')
    await shows(/Not read: “by the tide”/)
  })

  it('has odd days that are added, changed and taken out', async () => {
    await open('/hours')
    const rows = within(await form())
    const before = rows.getAllByLabelText('What it is').length
    await user.click(rows.getByRole('button', { name: '+ Odd day' }))
    expect(rows.getAllByLabelText('What it is')).toHaveLength(before + 1)
    await user.type(rows.getAllByLabelText('What it is').at(-1)!, 'Boat fair')
    await user.click(rows.getAllByRole('button', { name: /^Remove (Boat|Christmas|[0-9])/ }).at(-1)!)
    expect(rows.getAllByLabelText('What it is')).toHaveLength(before)
  })

  it('is changed by two at once: the clash says what stands there, and either can be taken', async () => {
    let tries = 0
    answering(
      api.put('/api/hours/{hours_id}', ({ response }) => {
        tries += 1
        return tries === 1
          ? refused(409, 'Somebody else has changed the same meanwhile: Tuesday (09:00–15:00).')
          : response(204).empty()
      }),
    )
    await open('/hours')
    const rows = within(await form())
    const to = rows.getByLabelText('Tuesday to')
    await user.clear(to)
    await user.type(to, '18:00')
    await user.tab()
    await user.click(rows.getByRole('button', { name: 'Save the hours' }))
    const asked = await rows.findByRole('alert')
    expect(asked.textContent).toContain('Tuesday (09:00–15:00)')
    expect((rows.getByLabelText('Tuesday to') as HTMLInputElement).value).toBe('18:00')
    await user.click(within(asked).getByRole('button', { name: 'Save mine in its place' }))
    await gone(() => rows.queryByRole('alert'))
    await waitFor(() =>
      expect(sent.filter((one) => one.method === 'PUT').at(-1)?.body).toMatchObject({ all_the_same: true }),
    )
  })
})

describe('the counter', () => {
  it('is left and come back to', async () => {
    answering(api.put('/api/counter', ({ response }) => response(204).empty()))
    await open('/hours')
    await user.click(await screen.findByRole('button', { name: 'At the counter' }))
    await user.click(await screen.findByRole('menuitem', { name: 'until I say so' }))
    expect(await sentTo('PUT', '/api/counter')).toMatchObject({ away: true, until: 'until-said' })
  })
})

describe('the promise', () => {
  it('is typed in hours and sent in minutes, once', async () => {
    answering(api.put('/api/business', ({ response }) => response(204).empty()))
    await open('/hours')
    const within_ = await screen.findByLabelText('We answer within')
    await user.clear(within_)
    await user.type(within_, '3{Enter}')
    await user.tab()
    expect(await sentTo('PUT', '/api/business')).toMatchObject({ promise_minutes: 180 })
    expect(sent.filter((one) => one.path === '/api/business')).toHaveLength(1)
  })
})

describe('what visitors are told', () => {
  it('shows each cell, and where a reply comes from', async () => {
    await open('/hours/told')
    const cell = await screen.findByRole('button', { name: /^Change: Open, Everywhere, unless changed/ })
    expect(cell.textContent).toContain('Thank you')
    await user.click(cell)
    const reply = within(await screen.findByRole('form', { name: /What is said: Open/ }))
    answering(api.put('/api/replies/{situation}', ({ response }) => response(204).empty()))
    await user.type(reply.getByLabelText('What the button says'), 'Ask away')
    await user.click(reply.getByRole('button', { name: 'Save' }))
    expect(await sentTo('PUT', '/api/replies/open')).toMatchObject({ reply: { button: 'Ask away' } })
  })
})
