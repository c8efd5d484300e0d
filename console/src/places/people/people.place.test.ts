import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { open, screen, sentTo, shows, user, waitFor, within } from '@/testing/open'
import { answer, answering, api, refused } from '@/testing/server'

const person = answer<Schemas['CardOut']>('/api/people/34')

describe('people', () => {
  it('are sought by a sentence that stands in the address', async () => {
    await open('/people')
    await shows(/[0-9] shown/)
    const condition = screen.getByLabelText('Another condition') as HTMLSelectElement
    const tagged = [...condition.options].find((one) => one.text === 'are tagged')!
    await user.selectOptions(condition, tagged.value)
    expect(await screen.findByLabelText('Which tag, 1')).toBeTruthy()
    await user.type(screen.getByLabelText('Find by name or address'), 'ife')
    await waitFor(() => expect(location.search).toContain('ife'))
  })

  it('are added by hand, and what is refused is said', async () => {
    answering(
      api.post('/api/people', () =>
        refused(422, 'Something is not right.', { phone: 'It has too few or too many digits.' }),
      ),
    )
    await open('/people')
    await user.click(await screen.findByRole('button', { name: '+ Person' }))
    const form = within(await screen.findByRole('dialog'))
    await user.type(form.getByLabelText('Name'), 'Isolde Quay')
    await user.type(form.getByLabelText('Phone'), '12')
    await user.click(form.getAllByRole('button')[0]!)
    expect(await sentTo('POST', '/api/people')).toMatchObject({ name: 'Isolde Quay', phone: '12' })
    await shows(/too few or too many digits/)
  })
})

describe('a person', () => {
  it('is tagged', async () => {
    answering(api.post('/api/people/{person_id}/tag', ({ response }) => response(200).json(person as never)))
    await open('/people/34')
    await screen.findByRole('heading', { level: 1, name: person.name })
    await user.type(screen.getByLabelText('Another tag'), 'school{Enter}')
    expect(await sentTo('POST', '/api/people/34/tag')).toMatchObject({ tag: 'school' })
  })

  it('is erased only after it is said what goes', async () => {
    answering(api.delete('/api/people/{person_id}', ({ response }) => response(202).empty()))
    await open('/people/34')
    await user.click(await screen.findByRole('button', { name: 'More' }))
    await user.click(await screen.findByRole('menuitem', { name: 'Erase them …' }))
    const ask = within(await screen.findByRole('alertdialog'))
    expect(ask.getByText(/This cannot be undone/)).toBeTruthy()
    await user.click(ask.getByRole('button', { name: 'Erase everything of theirs' }))
    await sentTo('DELETE', '/api/people/34')
  })
})

describe('a file of people', () => {
  const trial = {
    rows: 3,
    new: 2,
    join: 0,
    refused: 1,
    agreed: 0,
    samples: [],
    wrong: [],
    columns: [],
    unclear: [],
  }
  it('is read, its columns are chosen, and taken in after a trial', async () => {
    const row = {
      id: 4,
      name: 'fair.csv',
      form: 'csv',
      state: 'read',
      columns: ['name', 'email', 'tag'],
      titles: ['Vorname', 'E-Mail', 'Gruppe'],
      header: true,
      first: [['Jürgen', 'j@post.example', 'Messe']],
      new: 0,
      joined: 0,
      refused: 0,
      rows: 3,
      position: 0,
      at: '2026-11-24T14:05:00Z',
      consent_source: '',
      consent_at: null,
      by: 'Morwenna Hale',
      size: 120,
      delimiter: ';',
      tags: [],
      undone: 0,
      left: 0,
    }
    answering(
      api.get('/api/imports/{import_id}', ({ response }) => response(200).json(row as never)),
      api.get('/api/imports/{import_id}/trial', ({ response }) => response(200).json(trial as never)),
      api.put('/api/imports/{import_id}', ({ response }) => response(200).json(row as never)),
      api.post('/api/imports/{import_id}/take', ({ response }) =>
        response(202).json({ ...row, state: 'taking' } as never),
      ),
    )
    await open('/people/bring-in/4')
    await shows(/fair\.csv/)
    expect(screen.getAllByRole('combobox').length).toBeGreaterThan(1)
  })
})
