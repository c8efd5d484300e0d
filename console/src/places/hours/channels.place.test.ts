import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { open, screen, sentTo, shows, user, within } from '@/testing/open'
import { answer, answering, api, refused } from '@/testing/server'

const channels = answer<{ channels: Schemas['ChannelOut'][] }>('/api/channels')
const [first] = channels.channels

describe('a channel', () => {
  it('is changed in its form, and says where a number is wrong', async () => {
    answering(
      api.put('/api/channels/{channel_id}', () =>
        refused(422, 'Something is not right.', { 'document.handle': 'It has too few or too many digits.' }),
      ),
    )
    await open('/hours/channels')
    const form = within(await screen.findByRole('region', { name: first!.document.label as string }))
    const handle = form.getByLabelText('Number')
    await user.clear(handle)
    await user.type(handle, '12')
    await user.click(form.getByLabelText('a click reaches the goal'))
    await user.selectOptions(form.getByLabelText('While closed'), 'hide')
    await user.click(form.getByRole('button', { name: 'Icon: write' }))
    await user.click(form.getByRole('button', { name: 'Save the channel' }))
    expect(await sentTo('PUT', `/api/channels/${first!.id}`)).toMatchObject({
      document: { handle: '12', while_closed: 'hide', goal: false },
    })
    await shows(/too few or too many digits/)
  })

  it('has people behind it, each with hours and words of their own', async () => {
    answering(api.put('/api/channels/{channel_id}', ({ response }) => response(200).json(first! as never)))
    await open('/hours/channels')
    const form = within(await screen.findByRole('region', { name: first!.document.label as string }))
    await user.click(form.getByRole('button', { name: /\+ (Person|Somebody)/ }))
    const names = form.getAllByLabelText(/^Name/)
    await user.type(names.at(-1)!, 'Jory')
    await user.click(form.getByRole('button', { name: 'Save the channel' }))
    expect(await sentTo('PUT', `/api/channels/${first!.id}`)).toMatchObject({
      document: { people: [expect.objectContaining({ name: 'Jory' })] },
    })
  })

  it('is made by pasting what one has', async () => {
    answering(api.post('/api/channels', ({ response }) => response(201).json({ ...first!, id: 99 } as never)))
    await open('/hours/channels')
    await user.click(await screen.findByRole('button', { name: '+ Channel' }))
    await user.type(await screen.findByLabelText(/^Paste or type/), '01632 960 777')
    await user.click(screen.getByRole('button', { name: 'Read it' }))
    await shows(/Taken for/)
    await user.click(screen.getByRole('button', { name: 'Make the channel' }))
    expect(await sentTo('POST', '/api/channels')).toMatchObject({ document: { kind: 'phone' } })
  })

  it('is deleted, and had back', async () => {
    answering(
      api.delete('/api/channels/{channel_id}', ({ response }) => response(204).empty()),
      api.post(
        '/api/channels/{channel_id}/back',
        ({ response }) => response(200).json(null as never) as never,
      ),
    )
    await open('/hours/channels')
    const form = within(await screen.findByRole('region', { name: first!.document.label as string }))
    await user.click(form.getByRole('button', { name: 'Delete' }))
    await sentTo('DELETE', `/api/channels/${first!.id}`)
    await shows(/is deleted/)
    await user.click(screen.getByRole('button', { name: 'Undo' }))
    await sentTo('POST', `/api/channels/${first!.id}/back`)
  })
})
